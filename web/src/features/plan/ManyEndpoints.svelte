<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { api, asProblem, freshKey, ok, type Schemas } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import { kindsQuery, sheetQuery, tapeQuery } from '../../api/queries';
  import Figures from '../../ui/Figures.svelte';
  import { first } from '../../ui/first';
  import TextField from '../../ui/TextField.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { at, go } from '../../router';
  import Tape from './Tape.svelte';

  let { siteId, segments }: { siteId: number; segments: Schemas['SegmentView'][] } = $props();
  const client = useQueryClient();
  const key = freshKey();
  const kinds = createQuery(() => kindsQuery);
  const sheet = createQuery(() => sheetQuery(siteId));
  let kind = $state('till-pin-pad');
  let segmentId = $state(0);
  let seriesId = $state<number | null>(null);
  let numbers = $state('1 to 8');
  let count = $state('4');
  let place = $state('');
  const change = useChange();
  const problem = $derived(change.problem);
  const segment = $derived(segments.find((s) => s.id === segmentId) ?? first(segments));
  const series = $derived(
    (sheet.data?.data.series ?? []).filter(
      (s) => !s.followsId && (s.segmentId === null || s.segmentId === segment.id),
    ),
  );
  const kindSeries = $derived(kinds.data?.find((k) => k.id === kind)?.series);
  const counted = $derived(seriesId ?? series.find((s) => s.name === kindSeries)?.id ?? 0);
  const body = $derived({
    kind,
    segmentId: segment.id,
    seriesId: counted,
    numbers: counted ? numbers : undefined,
    count: counted ? undefined : Number(count) || 0,
    place,
  });
  const preview = createQuery(() => ({
    queryKey: ['site', siteId, 'batch', body],
    queryFn: () =>
      ok(
        api.POST('/api/sites/{siteId}/endpoint-batches', {
          params: { path: { siteId }, query: { preview: true }, header: key },
          body,
        }),
      ),
    enabled: !!sheet.data,
    placeholderData: (before) => before,
    retry: false,
    staleTime: 0,
  }));
  const tape = createQuery(() => tapeQuery(siteId, segment.id));
  const rows = $derived(preview.error ? [] : (preview.data?.rows ?? []));
  const wrong = $derived(problem ?? (preview.error ? asProblem(preview.error) : null));

  async function add(e: SubmitEvent) {
    e.preventDefault();
    await change.run(async () => {
      await ok(
        api.POST('/api/sites/{siteId}/endpoint-batches', {
          params: { path: { siteId }, query: { preview: false }, header: key },
          body,
        }),
      );
      await client.invalidateQueries({ queryKey: ['site', siteId] });
      await go(at(siteId, 'plan'));
    }, key);
  }
</script>

<h1>Many at once</h1>
{#if tape.data}<Tape
    {siteId}
    {segment}
    tape={tape.data}
    proposed={rows.map((r) => ({ host: r.host, label: r.number === null ? r.name : String(r.number) }))}
  />{/if}
<form
  onsubmit={add}
  oninput={change.clear}
  class="mt-4 grid gap-x-8 gap-y-4 lg:grid-cols-[20rem_1fr]"
  aria-label="Many endpoints"
>
  <div class="grid content-start gap-3">
    <div>
      <label class="field-label" for="many-kind">Kind</label>
      <select id="many-kind" class="select w-full" bind:value={kind} onchange={() => (seriesId = null)}>
        {#each kinds.data ?? [] as k (k.id)}<option value={k.id}>{k.name}</option>{/each}
      </select>
    </div>
    {#if segments.length > 1}
      <div>
        <label class="field-label" for="many-segment">Segment</label>
        <select
          id="many-segment"
          class="select w-full"
          value={segment.id}
          onchange={(e) => ((segmentId = Number(e.currentTarget.value)), (seriesId = null))}
        >
          {#each segments as s (s.id)}<option value={s.id}>{s.name}, {s.prefix}</option>{/each}
        </select>
      </div>
    {/if}
    <div>
      <label class="field-label" for="many-series">Counted in</label>
      <select
        id="many-series"
        class="select w-full"
        value={counted}
        onchange={(e) => (seriesId = Number(e.currentTarget.value))}
      >
        <option value={0}>no series</option>
        {#each series as s (s.id)}<option value={s.id}>{s.name}</option>{/each}
      </select>
    </div>
    {#if counted}
      <TextField
        label="Numbers"
        bind:value={numbers}
        error={wrong?.field('numbers')}
        hint="Such as 1 to 8, or 1, 3, 5"
        required
      />
    {:else}
      <TextField label="How many" bind:value={count} error={wrong?.field('count')} required />
    {/if}
    <TextField label="Place" bind:value={place} error={wrong?.field('place')} hint="May wait" />
  </div>
  <section aria-label="What this makes" aria-live="polite" class="min-w-0">
    {#if preview.data?.clash && !preview.error}
      <h2>They do not all fit</h2>
      <p class="mt-1">{preview.data.clash}</p>
      <p class="mt-2 font-semibold">The least that would have to give:</p>
      <ul class="list-disc pl-5">
        {#each preview.data.leastChanges as change (change)}<li>{change}</li>{/each}
      </ul>
    {:else}
      <h2>{rows.length ? `This makes ${rows.length}` : 'Nothing to make yet'}</h2>
      <ul class="mt-1">
        {#each rows as row (row.name)}
          <li class="flex flex-wrap items-baseline gap-x-4 border-b border-base-300 py-1.5">
            <Figures value={row.address} class="text-lg font-semibold" />
            <span class="font-semibold">{row.name}</span>
            <span class="quiet text-sm">{row.reason}{row.partner ? ' With ' + row.partner + '.' : ''}</span>
          </li>
        {/each}
      </ul>
    {/if}
    <Trouble problem={wrong?.errors.length ? null : wrong} />
    <div class="mt-4 flex gap-2">
      <button class="btn btn-primary" disabled={!rows.length}>Plan {rows.length || 'them'} here</button>
      <a class="btn btn-ghost" href={at(siteId, 'plan')}>Leave it</a>
    </div>
  </section>
</form>
