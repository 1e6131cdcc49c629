<script lang="ts">
  import Printer from '@lucide/svelte/icons/printer';
  import { createQuery } from '@tanstack/svelte-query';
  import { searchParams } from 'sv-router';
  import { asProblem, type Schemas } from '../../api/client';
  import { wiringQuery, sheetQuery } from '../../api/queries';
  import Loading from '../../ui/Loading.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import LabelSheet from './LabelSheet.svelte';
  import GridForm from './GridForm.svelte';
  import { printing } from './printing.svelte';
  import ReadTag from './ReadTag.svelte';
  import { gridsQuery, labelsPreviewQuery, readinessQuery } from './queries';
  import { TAG } from './words';

  /** What is printed, for whom, on which sheet, and from which of its places on. */
  let { siteId, mayWork, lead }: { siteId: number; mayWork: boolean; lead: boolean } = $props();
  type Type = Schemas['LabelRequest']['type'];
  const TYPES: Record<Type, string> = {
    TAG: 'Tags for the devices',
    CABLE_FLAG: 'Flags for both ends of the leads',
    PORT: 'Port strips',
    PLACE: 'Place cards',
  };
  const USUAL: Record<Type, number> = { TAG: 0, CABLE_FLAG: 4, PORT: 5, PLACE: 2 };
  const ready = createQuery(() => readinessQuery(siteId));
  const grids = createQuery(() => gridsQuery);
  const sheet = createQuery(() => sheetQuery(siteId));
  const wiring = createQuery(() => wiringQuery(siteId));
  const asked = (searchParams.get('of') as string | number | undefined)?.toString() ?? '';
  let type = $state<Type>('TAG');
  let ids = $state<number[]>(asked ? asked.split(',').map(Number) : []);
  let grid = $state('');
  let first = $state(1);
  let adding = $state(false);
  const chosen = $derived(grid || grids.data?.[USUAL[type]]?.grid.name || '');
  const places = $derived(grids.data?.find((g) => g.grid.name === chosen)?.labels ?? 1);
  const wanted = $derived({
    type,
    ids,
    grid: chosen,
    first: Math.min(Math.max(1, first || 1), places),
    link: location.origin + '/t/',
  });
  const preview = createQuery(() => ({ ...labelsPreviewQuery(siteId, wanted), enabled: !!chosen }));
  const work = printing(() => siteId);
  const choices = $derived.by(() => {
    if (type === 'PORT') return (sheet.data?.data.gear ?? []).filter((g) => g.ports.length);
    if (type === 'PLACE') return sheet.data?.data.places ?? [];
    const cabled = new Set(wiring.data?.cables.filter((c) => c.port || c.outlet).map((c) => c.endpointId));
    return (ready.data?.endpoints ?? []).filter((e) => type === 'TAG' || cabled.has(e.id));
  });
  const said = (id: number) => {
    const e = type === 'TAG' ? ready.data?.endpoints.find((x) => x.id === id) : undefined;
    return e && e.tag !== 'HANGS' ? TAG[e.tag] : '';
  };
  const open = $derived(
    ready.data?.endpoints.filter((e) => e.tag === 'NOT_PRINTED' || e.tag === 'HANGS_WRONG') ?? [],
  );

  function take(next: Type) {
    type = next;
    ids = [];
    grid = '';
    first = 1;
  }
  const toggle = (id: number) => (ids = ids.includes(id) ? ids.filter((x) => x !== id) : [...ids, id]);
</script>

<h1>Tags and labels</h1>
<div class="mt-3 grid gap-x-10 gap-y-6 min-[1000px]:grid-cols-[21rem_minmax(0,1fr)]">
  <div class="grid content-start gap-4">
    <div>
      <label class="field-label" for="what">What to print</label>
      <select
        id="what"
        class="select w-full"
        value={type}
        onchange={(e) => take(e.currentTarget.value as Type)}
      >
        {#each Object.entries(TYPES) as [value, name] (value)}<option {value}>{name}</option>{/each}
      </select>
    </div>
    <div>
      <label class="field-label" for="grid">On which sheet</label>
      <select id="grid" class="select w-full" value={chosen} onchange={(e) => (grid = e.currentTarget.value)}>
        {#each grids.data ?? [] as g (g.grid.name)}<option>{g.grid.name}</option>{/each}
      </select>
      {#if mayWork}<button class="mt-1 link text-sm" onclick={() => (adding = !adding)} aria-expanded={adding}
          >Another sheet of ours</button
        >{/if}
    </div>
    {#if adding}<GridForm
        like={grids.data?.find((g) => g.grid.name === chosen)}
        {lead}
        kept={(name) => ((grid = name), (adding = false))}
      />{/if}
    {#if places > 1}
      <div>
        <label class="field-label" for="first">First free place of the sheet</label>
        <input
          id="first"
          type="number"
          min="1"
          max={places}
          class="input w-24 font-mono"
          bind:value={first}
        /><span class="quiet ml-2 text-sm">of {places}; or click it on the sheet</span>
      </div>
    {/if}
    <fieldset>
      <legend class="field-label">For which</legend>
      <div class="mb-1 flex flex-wrap gap-x-4 text-sm">
        <button class="link" aria-pressed={!ids.length} onclick={() => (ids = [])}>All</button>
        {#if type === 'TAG' && open.length}<button class="link" onclick={() => (ids = open.map((e) => e.id))}
            >Those without a tag that is right ({open.length})</button
          >{/if}
      </div>
      <div class="max-h-72 overflow-y-auto pr-2">
        {#each choices as c (c.id)}
          <label class="flex items-center gap-2 py-0.5"
            ><input
              type="checkbox"
              class="checkbox checkbox-sm"
              checked={!ids.length || ids.includes(c.id)}
              onchange={() =>
                ids.length ? toggle(c.id) : (ids = choices.map((x) => x.id).filter((x) => x !== c.id))}
            /><span class="min-w-0"
              >{c.name}{#if said(c.id)}<span class="quiet ml-2 text-sm">{said(c.id)}</span>{/if}</span
            ></label
          >
        {/each}
      </div>
    </fieldset>
    <div class="border-t border-base-300 pt-4"><ReadTag /></div>
  </div>
  <div class="min-w-0">
    {#if preview.error}
      <Trouble problem={asProblem(preview.error)} />
    {:else if !preview.data}
      <Loading />
    {:else}
      <div class="mb-3 flex flex-wrap items-center gap-3">
        <p class="mr-auto" role="status">
          {preview.data.labels === 1 ? 'One label' : `${preview.data.labels} labels`} on {preview.data
            .sheets === 1
            ? 'one sheet'
            : `${preview.data.sheets} sheets`}
        </p>
        {#if mayWork}
          <button
            class="btn btn-outline btn-primary btn-sm"
            disabled={work.busy}
            onclick={() => work.svg(wanted)}>As SVG</button
          >
          <button class="btn btn-primary btn-sm" disabled={work.busy} onclick={() => work.pdf(wanted)}
            ><Printer size={16} aria-hidden="true" />Print as PDF</button
          >
        {/if}
      </div>
      <Trouble problem={work.problem} />
      {#if preview.data.said.length}
        <div class="caution mb-3">
          <ul>
            {#each preview.data.said.slice(0, 6) as s (s.said)}<li>
                {s.names.length > 3
                  ? `${s.names.slice(0, 2).join(', ')} and ${s.names.length - 2} more`
                  : s.names.join(', ')}: {s.said}
              </li>{/each}
            {#if preview.data.said.length > 6}<li>and {preview.data.said.length - 6} more</li>{/if}
          </ul>
        </div>
      {/if}
      {#each preview.data.shown as labels, n (n)}
        <LabelSheet
          grid={preview.data.grid}
          {labels}
          first={n === 0 ? wanted.first : 1}
          choose={n === 0 ? (place) => (first = place) : undefined}
        />
      {/each}
      {#if preview.data.sheets > preview.data.shown.length}<p class="quiet">
          and {preview.data.sheets - preview.data.shown.length} more sheets
        </p>{/if}
    {/if}
  </div>
</div>
