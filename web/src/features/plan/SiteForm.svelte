<script lang="ts">
  import { api, ok, type Schemas } from '../../api/client';
  import TextField from '../../ui/TextField.svelte';
  import SheetForm from '../../ui/SheetForm.svelte';
  import { sheetChange, type SheetAnswer } from '../../ui/sheetChange.svelte';

  let { sheet, done }: { sheet: SheetAnswer; done: () => void } = $props();
  const initial = () => ({
    name: sheet.data.site.name,
    client: sheet.data.site.client ?? '',
    zone: sheet.data.site.zone,
    nameRule: sheet.data.site.nameRule,
    feed: sheet.data.site.feed,
    feedNote: sheet.data.site.feedNote,
    feedPortId: sheet.data.site.feedPortId ?? 0,
  });
  const f = $state(initial());
  const change = sheetChange({ sheet: () => sheet, done: () => done(), form: f, record: initial });
  const upward = $derived(
    sheet.data.gear.flatMap((g) => g.ports).filter((p) => p.role === 'WAN' || p.role === 'UPLINK'),
  );

  const save = () =>
    void change.run((params) =>
      ok(
        api.PUT('/api/sites/{siteId}', {
          params,
          body: {
            name: f.name,
            client: f.client,
            zone: f.zone,
            nameRule: f.nameRule,
            feedNote: f.feedNote,
            feed: (f.feed || undefined) as Schemas['SiteChangeRequest']['feed'],
            feedPortId: f.feedPortId || undefined,
          },
        }),
      ),
    );
</script>

<SheetForm {change} shown={['name', 'client', 'zone', 'nameRule', 'feedNote']} label="Keep the change" {save}>
  <TextField label="Name" bind:value={f.name} error={change.problem?.field('name')} required />
  <TextField
    label="Client"
    bind:value={f.client}
    error={change.problem?.field('client')}
    list={sheet.data.clients.map((c) => c.name)}
    hint="Whose site it is"
  />
  <TextField label="Time zone" bind:value={f.zone} error={change.problem?.field('zone')} required />
  <TextField
    label="Naming rule for host names"
    bind:value={f.nameRule}
    error={change.problem?.field('nameRule')}
    hint={'From {site} {kind} {series} {number} {place}; at most 15 characters come of it'}
    mono
    required
  />
  <div>
    <label class="field-label" for="site-feed">How it is fed</label>
    <select id="site-feed" class="select w-full" bind:value={f.feed}>
      <option value="">not known yet</option>
      <option value="WALL">by a wall data port</option>
      <option value="MODEM">by a modem on a carrier</option>
    </select>
  </div>
  <div>
    <label class="field-label" for="site-port">Into the port</label>
    <select id="site-port" class="select w-full" bind:value={f.feedPortId}>
      <option value={0}>not known yet</option>
      {#each upward as p (p.id)}<option value={p.id}
          >{p.gear} {p.number}, {p.role === 'WAN' ? 'WAN' : 'uplink'}</option
        >{/each}
    </select>
  </div>
  <TextField
    label="About the feed"
    bind:value={f.feedNote}
    error={change.problem?.field('feedNote')}
    hint="Where it comes in, whom to call"
  />
</SheetForm>
