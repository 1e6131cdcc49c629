<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, ok, type Schemas } from '../../api/client';
  import { kindsQuery, registryChoicesQuery } from '../../api/queries';
  import TextField from '../../ui/TextField.svelte';
  import SheetForm from '../../ui/SheetForm.svelte';
  import { sheetChange, type SheetAnswer } from '../../ui/sheetChange.svelte';
  import { FACTS, listed } from './states';

  let {
    sheet,
    registry,
    done,
  }: { sheet: SheetAnswer; registry?: Schemas['RegistryView']; done: (id?: number) => void } = $props();
  let id = $state<number>();
  const change = sheetChange(
    () => sheet,
    () => done(id),
  );
  const choices = createQuery(() => registryChoicesQuery);
  const kinds = createQuery(() => kindsQuery);
  type Request = Schemas['RegistryRequest'];
  const from = (r: Schemas['Rules']) => ({
    naming: r.naming,
    longestName: String(r.longestName),
    ownerNeeded: r.ownerNeeded,
    sharing: r.sharing,
    most: r.most ? String(r.most) : '',
    lifetimeUnit: r.lifetime?.unit ?? ('' as const),
    lifetime: r.lifetime ? String(r.lifetime.amount) : '',
    restart: r.restart,
    facts: [...r.facts],
    models: r.models.join(', '),
    waitsFor: r.waitsFor,
    leadDays: r.leadDays ? String(r.leadDays) : '',
    form: r.form,
  });
  const initial = () => ({
    name: registry?.name ?? '',
    type: registry?.type ?? ('RESERVATIONS' as Request['type']),
    segmentId: registry?.segmentId ?? 0,
    medium: registry?.medium ?? ('' as const),
    kind: registry?.kinds[0] ?? '',
  });
  const f = $state(initial());
  let rules = $state<ReturnType<typeof from> | null>(rulesAtFirst());
  function rulesAtFirst() {
    return registry ? from(registry.rules) : null;
  }
  // A new one begins with what such a place usually has.
  $effect(() => {
    const usual = choices.data?.types.find((t) => t.type === f.type);
    if (!registry && usual) rules = from(usual.rules);
  });

  const save = () =>
    void change.run(async ({ path, header }) => {
      if (!rules) return;
      const kept = await ok(
        api.PUT('/api/sites/{siteId}/registries/{id}', {
          params: { path: { ...path, id: registry?.id ?? 0 }, header },
          body: {
            ...rules,
            name: f.name,
            type: f.type,
            segmentId: f.segmentId || undefined,
            medium: f.medium || undefined,
            kinds: f.kind ? [f.kind] : [],
            longestName: Number(rules.longestName) || 0,
            most: Number(rules.most) || 0,
            lifetimeUnit: rules.lifetimeUnit || undefined,
            lifetime: Number(rules.lifetime) || 0,
            models: listed(rules.models),
            leadDays: Number(rules.leadDays) || 0,
          },
        }),
      );
      id = kept.id;
    });
  const remove = $derived(
    registry &&
      (() =>
        void change.run(({ path, header }) =>
          ok(
            api.DELETE('/api/sites/{siteId}/registries/{id}', {
              params: { path: { ...path, id: registry?.id ?? 0 }, header },
            }),
          ),
        )),
  );
</script>

<SheetForm
  problem={change.problem}
  shown={['name', 'longestName', 'most', 'lifetime', 'leadDays', 'models', 'waitsFor']}
  label={registry ? 'Keep the rules' : 'Add the registry'}
  {save}
  {remove}
>
  <TextField
    label="Name"
    bind:value={f.name}
    error={change.problem?.field('name')}
    hint="Such as Router reservations"
    required
  />
  <div>
    <label class="field-label" for="registry-type">What it is</label>
    <select id="registry-type" class="select w-full" bind:value={f.type}>
      {#each choices.data?.types ?? [] as t (t.type)}<option value={t.type}>{t.words}</option>{/each}
    </select>
  </div>
  <div>
    <label class="field-label" for="registry-segment">For</label>
    <select id="registry-segment" class="select w-full" bind:value={f.segmentId}>
      <option value={0}>the whole site</option>
      {#each sheet.data.segments as s (s.id)}<option value={s.id}>{s.name}, {s.prefix}</option>{/each}
    </select>
  </div>
  <div>
    <label class="field-label" for="registry-kind">Which kind</label>
    <select id="registry-kind" class="select w-full" bind:value={f.kind}>
      <option value="">every kind</option>
      {#each kinds.data ?? [] as k (k.id)}<option value={k.id}>{k.name}</option>{/each}
    </select>
  </div>
  <div>
    <label class="field-label" for="registry-medium">Which MAC it must hold</label>
    <select id="registry-medium" class="select w-full" bind:value={f.medium}>
      <option value="">that of the interface in use</option>
      <option value="WIRED">the wired one</option>
      <option value="WIRELESS">the wireless one</option>
    </select>
  </div>
  {#if rules}
    <div>
      <label class="field-label" for="registry-form">Form of its list</label>
      <select id="registry-form" class="select w-full" bind:value={rules.form}>
        {#each choices.data?.forms ?? [] as form (form.form)}<option value={form.form}>{form.words}</option
          >{/each}
      </select>
    </div>
    <fieldset class="sm:col-span-2">
      <legend class="field-label">What it holds of a unit</legend>
      <div class="flex flex-wrap gap-x-5 gap-y-1">
        {#each ['MAC', 'NAME', 'ADDRESS', 'SERIAL', 'MODEL'] as const as fact (fact)}<label
            class="flex items-center gap-2"
            ><input type="checkbox" class="size-4" value={fact} bind:group={rules.facts} />{FACTS[
              fact
            ]}</label
          >{/each}
      </div>
    </fieldset>
    <div>
      <label class="field-label" for="registry-naming">Names there are</label>
      <select id="registry-naming" class="select w-full" bind:value={rules.naming}>
        <option value="HOST_NAME">host names</option>
        <option value="WORDS">any words</option>
      </select>
    </div>
    <TextField
      label="Most characters of a name"
      bind:value={rules.longestName}
      error={change.problem?.field('longestName')}
      mono
    />
    <div>
      <label class="field-label" for="registry-lifetime-unit">How long an entry lasts</label>
      <div class="flex gap-2">
        <input
          class="input w-24 font-mono {change.problem?.field('lifetime') ? 'input-error' : ''}"
          aria-label="Amount"
          inputmode="numeric"
          disabled={!rules.lifetimeUnit}
          bind:value={rules.lifetime}
        />
        <select id="registry-lifetime-unit" class="select w-full" bind:value={rules.lifetimeUnit}>
          <option value="">for good</option>
          <option value="HOURS">hours, to the minute</option>
          <option value="DAYS">days, to the end of the day</option>
        </select>
      </div>
      {#if change.problem?.field('lifetime')}<p class="mt-1 text-sm text-error">
          {change.problem.field('lifetime')}
        </p>{/if}
    </div>
    <TextField
      label="Most entries it takes"
      bind:value={rules.most}
      error={change.problem?.field('most')}
      hint="Empty for no limit"
      mono
    />
    <TextField
      label="Who enters it, when not you"
      bind:value={rules.waitsFor}
      error={change.problem?.field('waitsFor')}
      hint="Such as the network provider"
    />
    <TextField
      label="Days that takes"
      bind:value={rules.leadDays}
      error={change.problem?.field('leadDays')}
      mono
    />
    <TextField
      label="Exact models it takes"
      bind:value={rules.models}
      error={change.problem?.field('models')}
      hint="Parted by commas; empty for any"
    />
    <div class="grid content-end gap-1 pb-2">
      <label class="flex items-center gap-2"
        ><input type="checkbox" class="size-4" bind:checked={rules.restart} />Joins only after a restart</label
      >
      <label class="flex items-center gap-2"
        ><input type="checkbox" class="size-4" bind:checked={rules.ownerNeeded} />Every entry has an owner</label
      >
      <label class="flex items-center gap-2"
        ><input
          type="checkbox"
          class="size-4"
          checked={rules.sharing === 'BY_KIND'}
          onchange={(e) => rules && (rules.sharing = e.currentTarget.checked ? 'BY_KIND' : 'NONE')}
        />Entries are shared with those who use them</label
      >
    </div>
  {/if}
</SheetForm>
