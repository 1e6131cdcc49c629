<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { asProblem } from '../../api/client';
  import Loading from '../../ui/Loading.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { at } from '../../router';
  import GearOne from './GearOne.svelte';
  import { gearQuery } from './queries';

  /** What routers and switches tell of themselves, held against the record. */
  let { siteId, mayWork }: { siteId: number; mayWork: boolean } = $props();
  const gear = createQuery(() => gearQuery(siteId));
</script>

<h1>Routers and switches</h1>
{#if gear.error}
  <Trouble problem={asProblem(gear.error)} again={() => gear.refetch()} />
{:else if !gear.data}
  <Loading />
{:else if gear.data.length === 0}
  <p class="mt-2 max-w-2xl">
    No router or switch is on record here. <a class="link" href={at(siteId, 'plan', 'wiring')}
      >Put one on record</a
    > with its ports, and it can be read.
  </p>
{:else}
  <p class="mt-1 max-w-3xl">
    They know who hangs at which port, at what speed, and with whom they talked. They are only read, never
    set.
  </p>
  {#each gear.data as g (g.id)}
    <GearOne {siteId} gear={g} {mayWork} />
  {/each}
{/if}
