<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { asProblem, type Schemas } from '../../api/client';
  import { growthQuery, sheetQuery } from '../../api/queries';
  import Dialog from '../../ui/Dialog.svelte';
  import Loading from '../../ui/Loading.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { dayOf } from '../../ui/time';
  import SeriesForm from './SeriesForm.svelte';

  let { siteId, mayWork }: { siteId: number; mayWork: boolean } = $props();
  const growth = createQuery(() => growthQuery(siteId));
  const sheet = createQuery(() => sheetQuery(siteId));
  let editing = $state<Schemas['SeriesRow'] | 'new' | null>(null);
  let open = $state(false);
  const COUNTS: Record<string, string> = {
    HOST: 'Host',
    LISTENING_PORT: 'Port on the partner',
    NUMBER: 'Number',
    GEAR_PORT: 'LAN port',
  };
  const rows = $derived(
    (growth.data ?? []).flatMap((run) => {
      const series = sheet.data?.data.series.find((s) => s.id === run.seriesId);
      return series ? [{ ...run, series }] : [];
    }),
  );
  const ground = (s: Schemas['SeriesRow']) =>
    sheet.data?.data.segments.find((g) => g.id === s.segmentId)?.name ??
    sheet.data?.data.gear.find((g) => g.id === s.gearId)?.name ??
    '';
  const along = (s: Schemas['SeriesRow']) => sheet.data?.data.series.find((o) => o.id === s.followsId)?.name;

  function edit(series: Schemas['SeriesRow'] | 'new') {
    editing = series;
    open = true;
  }
</script>

<div class="flex flex-wrap items-center gap-3">
  <h1 class="mr-auto">Series</h1>
  {#if mayWork}<button class="btn btn-primary" onclick={() => edit('new')}>New series</button>{/if}
</div>
<p class="quiet mt-1 max-w-prose">
  A numbered run, so that a figure can be worked out in the head: base + number. The one that will be full
  first stands first.
</p>
{#if growth.error}
  <Trouble problem={asProblem(growth.error)} again={() => growth.refetch()} />
{:else if !growth.data || !sheet.data}
  <Loading />
{:else}
  <ul class="mt-4 grid gap-x-10 gap-y-6 lg:grid-cols-2">
    {#each rows as { series, fit } (series.id)}
      <li class="border-t-2 border-base-content pt-2">
        <div class="flex items-baseline justify-between gap-4">
          <h2>{series.name}</h2>
          {#if mayWork}<button class="link text-sm text-primary" onclick={() => edit(series)}>Change</button
            >{/if}
        </div>
        <p class="mt-1 text-xl">
          {COUNTS[series.counts]}
          <span class="font-mono font-semibold">= {series.hostBase} + number</span>
        </p>
        <p class="quiet text-sm">
          {[
            ground(series),
            series.portBase ? 'port ' + series.portBase + ' + number' : '',
            along(series) ? 'counts along with ' + along(series) : '',
          ]
            .filter(Boolean)
            .join(', ')}
        </p>
        <div class="mt-2 flex h-3 gap-px" aria-hidden="true">
          {#each Array.from({ length: Math.min(fit.room, 60) }, (_, i) => i) as i (i)}
            <span
              class="min-w-0.5 flex-1 {i <
              Math.round((fit.taken / Math.max(fit.room, 1)) * Math.min(fit.room, 60))
                ? 'bg-manila-edge'
                : 'border border-manila-edge'}"
            ></span>
          {/each}
        </div>
        <p class="mt-1">
          {fit.taken} of {fit.room} given{fit.next === null ? ', none left' : `, next is number ${fit.next}`}.
        </p>
        <p class="quiet text-sm">Number {fit.firstUnfit} no longer fits: {fit.why}</p>
        {#if fit.fullOn}<p class="text-sm">
            At {series.perYear} a year it is full on <time datetime={fit.fullOn}>{dayOf(fit.fullOn)}</time>.
          </p>{/if}
      </li>
    {:else}
      <li>No series yet. Tills are the usual first one: host = 50 + number.</li>
    {/each}
  </ul>
{/if}
<Dialog bind:open title={editing === 'new' ? 'New series' : 'Change the series'} wide>
  {#if editing && sheet.data}<SeriesForm
      sheet={sheet.data}
      series={editing === 'new' ? null : editing}
      done={() => (open = false)}
    />{/if}
</Dialog>
