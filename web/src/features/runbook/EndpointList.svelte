<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { asProblem } from '../../api/client';
  import { endpointsQuery } from '../../api/queries';
  import Figures from '../../ui/Figures.svelte';
  import Knot from '../../ui/Knot.svelte';
  import Loading from '../../ui/Loading.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { at, type StationPath } from '../../router';

  let {
    siteId,
    station,
    title,
    wanted,
    empty,
  }: { siteId: number; station: StationPath; title: string; wanted: string[]; empty: string } = $props();
  const endpoints = createQuery(() => endpointsQuery(siteId));
  const waiting = $derived((endpoints.data ?? []).filter((e) => wanted.includes(e.station)));
  const others = $derived((endpoints.data ?? []).filter((e) => !wanted.includes(e.station)));
</script>

{#snippet list(lines: typeof waiting)}
  <ul>
    {#each lines as e (e.id)}
      <li>
        <a
          class="flex items-center gap-3 border-b border-base-300 px-1 py-2.5 no-underline hover:bg-base-200"
          href={at(siteId, station, e.id)}
        >
          <Knot state={e.knot as 'OPEN'} />
          <span class="min-w-0 flex-1"
            ><span class="block truncate font-semibold">{e.name}</span><span
              class="quiet block truncate text-sm">{e.place}</span
            ></span
          >
          {#if e.address}<Figures value={e.address} class="text-lg font-medium" />{/if}
        </a>
      </li>
    {/each}
  </ul>
{/snippet}

{#if station === 'onboard'}<h2 class="mt-8">{title}</h2>{:else}<h1>{title}</h1>{/if}
{#if endpoints.error}
  <Trouble problem={asProblem(endpoints.error)} again={() => endpoints.refetch()} />
{:else if !endpoints.data}
  <Loading />
{:else}
  <h2 class="mt-5 text-base">Waiting here</h2>
  {#if waiting.length}{@render list(waiting)}{:else}<p class="quiet py-3">{empty}</p>{/if}
  {#if others.length}
    <h2 class="mt-8 text-base">Elsewhere on their way</h2>
    {@render list(others)}
  {/if}
{/if}
