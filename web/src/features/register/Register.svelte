<script lang="ts">
  import Download from '@lucide/svelte/icons/download';
  import Upload from '@lucide/svelte/icons/upload';
  import { createQuery } from '@tanstack/svelte-query';
  import { asProblem, type Schemas } from '../../api/client';
  import { endpointsQuery } from '../../api/queries';
  import Dialog from '../../ui/Dialog.svelte';
  import Loading from '../../ui/Loading.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { at, go, type AtStation } from '../../router';
  import EndpointTable from '../../ui/EndpointTable.svelte';
  import ImportRegister from '../../ui/ImportRegister.svelte';
  import CleanUp from './CleanUp.svelte';
  import Due from './Due.svelte';
  import Registries from './Registries.svelte';
  import RegisterViews from './RegisterViews.svelte';
  import Swaps from './Swaps.svelte';
  import UnitPanel from './UnitPanel.svelte';

  let { siteId, place, endpoint, mayWork }: AtStation<'register'> = $props();
  const endpoints = createQuery(() => endpointsQuery(siteId));
  const view = $derived('view' in place ? place.view : undefined);
  const chosen = $derived('endpoint' in place ? place.endpoint : 0);
  let importing = $state(false);
  // What misses its label comes first: that is the pile on the bench.
  const lacks = (e: Schemas['EndpointLine']) => !e.mac || !e.serial;
  const nextLabel = $derived((endpoints.data ?? []).find((e) => lacks(e) && e.id !== chosen));
</script>

<RegisterViews {siteId} {view} />
{#if view === 'registries'}<Registries {siteId} {mayWork} />
{:else if view === 'due'}<Due {siteId} {mayWork} />
{:else if view === 'swaps'}<Swaps {siteId} {mayWork} />
{:else if view === 'clean-up'}<CleanUp {siteId} {mayWork} />
{:else}
  <div class="flex flex-wrap items-center gap-3">
    <h1 class="mr-auto">Labels</h1>
    <a class="btn btn-outline btn-primary btn-sm" href="/api/sites/{siteId}/register.csv" download
      ><Download size={16} aria-hidden="true" />CSV</a
    >
    <a class="btn btn-outline btn-primary btn-sm" href="/api/sites/{siteId}/register.json" download
      ><Download size={16} aria-hidden="true" />JSON</a
    >
    {#if mayWork}<button class="btn btn-outline btn-primary btn-sm" onclick={() => (importing = true)}
        ><Upload size={16} aria-hidden="true" />Bring in</button
      >{/if}
  </div>
  {#if endpoint && mayWork}
    {#key endpoint.data.id}<UnitPanel
        {endpoint}
        next={nextLabel && (!endpoint.data.mac || !endpoint.data.serial)
          ? () => void go(at(siteId, 'register', nextLabel.id))
          : undefined}
      />{/key}
  {/if}
  {#if endpoints.error}
    <Trouble problem={asProblem(endpoints.error)} again={() => endpoints.refetch()} />
  {:else if !endpoints.data}
    <Loading />
  {:else if !endpoints.data.length}
    <p class="mt-6">
      Nothing is on record here. <a class="link" href={at(siteId, 'plan', 'new')}>Plan the first endpoint</a>,
      or bring in a register file.
    </p>
  {:else}
    <div class="mt-4">
      <EndpointTable
        {siteId}
        station="register"
        lines={endpoints.data}
        wanted={lacks}
        {chosen}
        label="Labels"
        facts
      />
    </div>
  {/if}
{/if}
<Dialog bind:open={importing} title="Bring in a register file" wide
  ><ImportRegister {siteId} done={() => (importing = false)} /></Dialog
>
