<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { asProblem } from '../../api/client';
  import { swapsQuery } from '../../api/queries';
  import Loading from '../../ui/Loading.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import SwapSheet from './SwapSheet.svelte';

  let { siteId, mayWork }: { siteId: number; mayWork: boolean } = $props();
  const swaps = createQuery(() => swapsQuery(siteId));
</script>

<h1>Swaps</h1>
{#if swaps.error}
  <Trouble problem={asProblem(swaps.error)} again={() => swaps.refetch()} />
{:else if !swaps.data}
  <Loading />
{:else}
  {#each swaps.data as swap (swap.id)}<SwapSheet {swap} {siteId} {mayWork} />{:else}
    <p class="mt-4 max-w-prose">
      No unit is being swapped. When one breaks, choose it under Labels and press Replace the unit: the sheet
      then says, place by place, where the old one goes out and the new one in.
    </p>
  {/each}
{/if}
