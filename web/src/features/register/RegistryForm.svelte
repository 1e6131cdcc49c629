<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, ok, type Schemas } from '../../api/client';
  import { kindsQuery, registryChoicesQuery } from '../../api/queries';
  import TextField from '../../ui/TextField.svelte';
  import SheetForm from '../../ui/SheetForm.svelte';
  import { sheetChange, type SheetAnswer } from '../../ui/sheetChange.svelte';
  import RegistryRules from './RegistryRules.svelte';
  import { rulesOf, type TypedRules } from './registryRules';
  import { listed } from './states';

  let {
    sheet,
    registry,
    done,
  }: { sheet: SheetAnswer; registry?: Schemas['RegistryView']; done: (id?: number) => void } = $props();
  let id = $state<number>();
  const change = sheetChange({ sheet: () => sheet, done: () => done(id) });
  const choices = createQuery(() => registryChoicesQuery);
  const kinds = createQuery(() => kindsQuery);
  type Request = Schemas['RegistryRequest'];
  const initial = () => ({
    name: registry?.name ?? '',
    type: registry?.type ?? ('RESERVATIONS' as Request['type']),
    segmentId: registry?.segmentId ?? 0,
    medium: registry?.medium ?? ('' as const),
    kind: registry?.kinds[0] ?? '',
  });
  const f = $state(initial());
  let rules = $state<TypedRules | null>(rulesAtFirst());
  function rulesAtFirst() {
    return registry ? rulesOf(registry.rules) : null;
  }
  // A new one begins with what such a place usually has.
  $effect(() => {
    const usual = choices.data?.types.find((t) => t.type === f.type);
    if (!registry && usual) rules = rulesOf(usual.rules);
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
  {change}
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
  {#if rules}<RegistryRules bind:rules forms={choices.data?.forms ?? []} problem={change.problem} />{/if}
</SheetForm>
