<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { asProblem, type Schemas } from '../../api/client';
  import { endpointsQuery, kindsQuery, siteQuery } from '../../api/queries';
  import Dialog from '../../ui/Dialog.svelte';
  import Loading from '../../ui/Loading.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { at, go } from '../../router';
  import NewSegment from '../site/NewSegment.svelte';
  import ImportRegister from '../register/ImportRegister.svelte';
  import ChangeEndpoint from './ChangeEndpoint.svelte';
  import Lately from './Lately.svelte';
  import NewEndpoint from './NewEndpoint.svelte';
  import Tape from './Tape.svelte';

  let {
    siteId,
    chosen,
    endpoint,
    mayWork,
  }: {
    siteId: number;
    chosen: number | 'new';
    endpoint?: { data: Schemas['EndpointView']; etag: string };
    mayWork: boolean;
  } = $props();
  const site = createQuery(() => siteQuery(siteId));
  const endpoints = createQuery(() => endpointsQuery(siteId));
  const kinds = createQuery(() => kindsQuery);
  let addingSegment = $state(false);
  let picked = $state(0);
  let proposed = $state<{ host: number; label: string } | null>(null);
  const segments = $derived(site.data?.segments ?? []);
  const segment = $derived(
    segments.find((s) => s.id === (endpoint?.data.segmentId ?? picked)) ??
      segments.find((s) => s.id === picked) ??
      segments[0],
  );
  const here = $derived((endpoints.data ?? []).filter((e) => e.segmentId === segment?.id));
</script>

{#if site.error}
  <Trouble problem={asProblem(site.error)} again={() => site.refetch()} />
{:else if !site.data || !endpoints.data}
  <Loading />
{:else if !segment}
  <h1>{site.data.name} has no segment yet</h1>
  <p class="quiet mt-2 mb-6 max-w-prose">
    A segment is one subnet: its prefix, gateway, resolvers, and what the router hands out by itself. Type it
    in, or bring in a register file that knows it.
  </p>
  {#if mayWork}
    <NewSegment {siteId} />
    <h2 class="mt-10 mb-3">Or bring in a register file</h2>
    <ImportRegister {siteId} />
  {/if}
{:else}
  <div class="flex flex-wrap items-baseline gap-x-4 gap-y-1">
    {#if segments.length > 1}
      <h1 class="sr-only">Plan</h1>
      <select
        class="select w-auto text-lg font-bold"
        aria-label="Segment"
        value={segment.id}
        onchange={(e) => (picked = Number(e.currentTarget.value))}
      >
        {#each segments as s (s.id)}<option value={s.id}>{s.name}</option>{/each}
      </select>
    {:else}<h1>{segment.name}</h1>{/if}
    <span class="font-mono text-lg">{segment.prefix}</span>
    <span class="quiet"
      >{segment.gatewayHost === null ? 'no gateway' : 'gateway ' + segment.gatewayHost}, {segment.living} on record,
      {segment.fixable}
      can be fixed</span
    >
  </div>
  <Tape
    {segment}
    endpoints={here}
    kinds={kinds.data ?? []}
    chosen={typeof chosen === 'number' ? chosen : 0}
    proposedHost={proposed?.host ?? null}
    proposedLabel={proposed?.label ?? ''}
    {siteId}
  />
  {#if chosen === 'new' && mayWork}
    <NewEndpoint {siteId} {segment} onpropose={(place) => (proposed = place)} />
  {:else}
    <div class="mt-6 grid gap-8 lg:grid-cols-2">
      <div>
        {#if endpoint}
          <ChangeEndpoint {endpoint} {mayWork} />
        {:else if mayWork}
          <h2>Add an endpoint</h2>
          <p class="quiet mt-1 mb-4">Say what it is; the address is proposed, with the reason.</p>
          <button class="btn btn-primary" onclick={() => go(at(siteId, 'plan', 'new'))}
            >New endpoint <kbd>n</kbd></button
          >
          <button class="btn ml-2 btn-outline btn-primary" onclick={() => (addingSegment = true)}
            >New segment</button
          >
        {:else}
          <h2>You are looking on</h2>
          <p class="quiet mt-1">The office sees the plan and the proof; a technician changes them.</p>
        {/if}
      </div>
      <Lately {siteId} zone={site.data.zone} offset={site.data.zoneNow} />
    </div>
  {/if}
  <Dialog bind:open={addingSegment} title="New segment" wide
    ><NewSegment {siteId} done={() => (addingSegment = false)} /></Dialog
  >
{/if}
