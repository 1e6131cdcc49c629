<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { asProblem, type Schemas } from '../../api/client';
  import { renumberingsQuery } from '../../api/queries';
  import Loading from '../../ui/Loading.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import RenumberPlan from './RenumberPlan.svelte';
  import RenumberRun from './RenumberRun.svelte';

  let {
    siteId,
    segments,
    mayWork,
  }: { siteId: number; segments: Schemas['SegmentView'][]; mayWork: boolean } = $props();
  const running = createQuery(() => renumberingsQuery(siteId));
  let another = $state(false);
  const free = $derived(segments.filter((s) => !running.data?.some((r) => r.segmentId === s.id)));
</script>

<h1>Renumber</h1>
{#if running.error}
  <Trouble problem={asProblem(running.error)} again={() => running.refetch()} />
{:else if !running.data}
  <Loading />
{:else}
  {#each running.data as run (run.id)}<RenumberRun id={run.id} {mayWork} />{/each}
  {#if free.length && mayWork && (!running.data.length || another)}
    <p class="quiet mt-1 max-w-prose">
      A new prefix, or a new router with another gateway or pool. You get who moves where, everything that
      points at an old address, and an order in which no two ever hold the same one.
    </p>
    <RenumberPlan {siteId} segments={free} begun={() => (another = false)} />
  {:else if free.length && mayWork}
    <button class="btn btn-ghost" onclick={() => (another = true)}>Renumber another segment</button>
  {:else if !running.data.length}<p class="mt-2">Nothing is being renumbered.</p>{/if}
{/if}
