<script lang="ts">
  import Download from '@lucide/svelte/icons/download';
  import Upload from '@lucide/svelte/icons/upload';
  import { createQuery } from '@tanstack/svelte-query';
  import { asProblem, type Schemas } from '../../api/client';
  import { endpointsQuery } from '../../api/queries';
  import Dialog from '../../ui/Dialog.svelte';
  import Knot from '../../ui/Knot.svelte';
  import Loading from '../../ui/Loading.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { at, go, type RegisterView } from '../../router';
  import ImportRegister from './ImportRegister.svelte';
  import CleanUp from './CleanUp.svelte';
  import Due from './Due.svelte';
  import Registries from './Registries.svelte';
  import RegisterViews from './RegisterViews.svelte';
  import Swaps from './Swaps.svelte';
  import UnitPanel from './UnitPanel.svelte';

  let {
    siteId,
    chosen,
    sight,
    endpoint,
    mayWork,
  }: {
    siteId: number;
    chosen: number | 'new';
    sight?: RegisterView;
    endpoint?: { data: Schemas['EndpointView']; etag: string };
    mayWork: boolean;
  } = $props();
  const endpoints = createQuery(() => endpointsQuery(siteId));
  let importing = $state(false);
  let filter = $state('');
  const shown = $derived(
    (endpoints.data ?? []).filter((e) =>
      [e.name, e.address, e.mac, e.serial, e.place, e.tagCode].some((t) =>
        t?.toLowerCase().includes(filter.trim().toLowerCase()),
      ),
    ),
  );
  // What misses its label comes first: that is the pile on the bench.
  const ordered = $derived(shown.toSorted((a, b) => Number(lacks(b)) - Number(lacks(a))));
  const lacks = (e: Schemas['EndpointLine']) => !e.mac || !e.serial;
  const nextLabel = $derived((endpoints.data ?? []).find((e) => lacks(e) && e.id !== chosen));
</script>

<RegisterViews {siteId} view={sight} />
{#if sight === 'registries'}<Registries {siteId} {mayWork} />
{:else if sight === 'due'}<Due {siteId} {mayWork} />
{:else if sight === 'swaps'}<Swaps {siteId} {mayWork} />
{:else if sight === 'clean-up'}<CleanUp {siteId} {mayWork} />
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
    <label class="sr-only" for="register-filter">Filter the register</label>
    <input
      id="register-filter"
      type="search"
      class="input mt-4 w-full max-w-xs input-sm"
      placeholder="Filter"
      bind:value={filter}
    />
    <p class="sr-only" role="status">{shown.length} of {endpoints.data.length} endpoints</p>
    <ul class="mt-2">
      {#each ordered as e (e.id)}
        <li>
          <button
            class="grid w-full grid-cols-[auto_1fr_auto] items-center gap-x-3 border-b border-base-300 px-1 py-2 text-left hover:bg-base-200 md:grid-cols-[auto_minmax(10rem,1.4fr)_8.5rem_11rem_minmax(8rem,1fr)] {e.id ===
            chosen
              ? 'bg-base-200'
              : ''}"
            aria-current={e.id === chosen}
            onclick={() => go(at(siteId, 'register', e.id))}
          >
            <Knot state={e.knot as 'OPEN'} size={24} />
            <span class="min-w-0"
              ><span class="block truncate font-semibold">{e.name}</span><span
                class="quiet block truncate text-sm">{e.place}</span
              ></span
            >
            <span class="font-mono text-sm" translate="no">{e.address ?? 'no address'}</span>
            <span
              class="col-start-2 font-mono text-sm md:col-start-auto {e.mac ? '' : 'text-error'}"
              translate="no">{e.mac ?? 'MAC not read yet'}</span
            >
            <span class="truncate font-mono text-sm {e.serial ? '' : 'text-error'}" translate="no"
              >{e.serial || 'no serial yet'}</span
            >
          </button>
        </li>
      {:else}<li class="quiet py-4">Nothing here has “{filter}”.</li>{/each}
    </ul>
  {/if}
{/if}
<Dialog bind:open={importing} title="Bring in a register file" wide
  ><ImportRegister {siteId} done={() => (importing = false)} /></Dialog
>
