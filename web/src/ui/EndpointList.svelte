<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { asProblem } from '../api/client';
  import { endpointsQuery } from '../api/queries';
  import Loading from './Loading.svelte';
  import Trouble from './Trouble.svelte';
  import type { StationPath } from '../router';
  import EndpointTable from './EndpointTable.svelte';

  let {
    siteId,
    station,
    title,
    wanted,
    empty,
  }: { siteId: number; station: StationPath; title: string; wanted: string[]; empty: string } = $props();
  const endpoints = createQuery(() => endpointsQuery(siteId));
</script>

{#if station === 'onboard'}<h2 class="mt-8">{title}</h2>{:else}<h1>{title}</h1>{/if}
{#if endpoints.error}
  <Trouble problem={asProblem(endpoints.error)} again={() => endpoints.refetch()} />
{:else if !endpoints.data}
  <Loading />
{:else}
  {#if !endpoints.data.some((e) => wanted.includes(e.station))}<p class="quiet py-2">{empty}</p>{/if}
  {#if endpoints.data.length}
    <div class="mt-3">
      <EndpointTable
        {siteId}
        {station}
        lines={endpoints.data}
        wanted={(e) => wanted.includes(e.station)}
        label={title}
      />
    </div>
  {/if}
{/if}
