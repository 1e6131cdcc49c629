<script lang="ts">
  import { api, ok, type Schemas } from '../../api/client';
  import TextField from '../../ui/TextField.svelte';
  import { sheetChange, type SheetAnswer } from '../../ui/sheetChange.svelte';
  import SheetForm from '../../ui/SheetForm.svelte';

  let { sheet, series, done }: { sheet: SheetAnswer; series: Schemas['SeriesRow'] | null; done: () => void } =
    $props();
  const initial = () => ({
    name: series?.name ?? '',
    counts: (series?.counts ?? 'HOST') as Schemas['SeriesRequest']['counts'],
    segmentId: series?.segmentId ?? sheet.data.segments[0]?.id ?? 0,
    gearId: series?.gearId ?? sheet.data.gear[0]?.id ?? 0,
    followsId: series?.followsId ?? 0,
    base: String(series?.hostBase ?? ''),
    portBase: String(series?.portBase || ''),
    last: String(series?.lastNumber || ''),
    perYear: String(series?.perYear || ''),
  });
  const f = $state(initial());
  const change = sheetChange({ sheet: () => sheet, done: () => done(), form: f, record: initial });
  const problem = $derived(change.problem);
  const others = $derived(sheet.data.series.filter((s) => s.id !== series?.id && !s.followsId));

  const save = () =>
    void change.run(({ path, header }) =>
      ok(
        api.PUT('/api/sites/{siteId}/series/{id}', {
          params: { path: { ...path, id: series?.id ?? 0 }, header },
          body: {
            name: f.name,
            counts: f.counts,
            segmentId: f.counts === 'HOST' ? f.segmentId : undefined,
            gearId: f.counts === 'GEAR_PORT' ? f.gearId : undefined,
            followsId: f.followsId || undefined,
            base: Number(f.base) || 0,
            portBase: Number(f.portBase) || 0,
            last: Number(f.last) || 0,
            perYear: Number(f.perYear) || 0,
          },
        }),
      ),
    );
  const remove = (id: number) => () =>
    void change.run(({ path, header }) =>
      ok(api.DELETE('/api/sites/{siteId}/series/{id}', { params: { path: { ...path, id }, header } })),
    );
</script>

<SheetForm
  {change}
  shown={['name', 'hostBase', 'lastNumber', 'gearId']}
  label={series ? 'Keep the change' : 'Add the series'}
  {save}
  remove={series ? remove(series.id) : undefined}
>
  <TextField
    label="Name"
    bind:value={f.name}
    error={problem?.field('name')}
    hint="Such as Till, PIN pad, Operator"
    required
  />
  <div>
    <label class="field-label" for="series-counts">What it counts</label>
    <select id="series-counts" class="select w-full" bind:value={f.counts}>
      <option value="HOST">Host numbers of a segment</option>
      <option value="LISTENING_PORT">Listening ports on one partner's address</option>
      <option value="NUMBER">Numbers in a program: devices, operators</option>
      <option value="GEAR_PORT">LAN ports of a router or switch</option>
    </select>
  </div>
  {#if f.counts === 'HOST'}
    <div>
      <label class="field-label" for="series-segment">In the segment</label>
      <select id="series-segment" class="select w-full" bind:value={f.segmentId}>
        {#each sheet.data.segments as s (s.id)}<option value={s.id}>{s.name}, {s.prefix}</option>{/each}
      </select>
    </div>
  {:else if f.counts === 'GEAR_PORT'}
    <div>
      <label class="field-label" for="series-gear">Of</label>
      <select id="series-gear" class="select w-full" bind:value={f.gearId}>
        {#each sheet.data.gear as g (g.id)}<option value={g.id}>{g.name}</option>{/each}
      </select>
      {#if problem?.field('gearId')}<p class="mt-1 text-sm text-error">{problem.field('gearId')}</p>{/if}
    </div>
  {/if}
  <TextField
    label="Base"
    bind:value={f.base}
    error={problem?.field('hostBase')}
    hint="Figure = base + number; 50 gives 51 to number 1"
    mono
  />
  {#if f.counts === 'HOST'}<TextField
      label="Port base"
      bind:value={f.portBase}
      hint="Own port = base + number; empty for none"
      mono
    />{/if}
  <TextField
    label="Last number"
    bind:value={f.last}
    error={problem?.field('lastNumber')}
    hint="Empty: as far as it fits"
    mono
  />
  <TextField label="New ones a year" bind:value={f.perYear} hint="Tells when it will be full" mono />
  {#if others.length}
    <div>
      <label class="field-label" for="series-follows">Counts along with</label>
      <select id="series-follows" class="select w-full" bind:value={f.followsId}>
        <option value={0}>nothing, it has numbers of its own</option>
        {#each others as s (s.id)}<option value={s.id}>{s.name}</option>{/each}
      </select>
    </div>
  {/if}
</SheetForm>
