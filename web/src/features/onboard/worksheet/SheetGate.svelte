<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { asProblem } from '../../../api/client';
  import Loading from '../../../ui/Loading.svelte';
  import Trouble from '../../../ui/Trouble.svelte';
  import { filledQuery, worksheetsQuery } from './queries';
  import Worksheet from './Worksheet.svelte';

  /** The worksheet that a step waits for. */
  let { sheet, endpoint }: { sheet: string; endpoint: number } = $props();
  const all = createQuery(() => worksheetsQuery);
  const filled = createQuery(() => filledQuery({ endpoint }));
  const view = $derived(all.data?.find((w) => w.key === sheet));
  const here = $derived(filled.data?.find((f) => f.sheet === sheet));
  const failed = $derived(all.error ?? filled.error);
  let form = $state<ReturnType<typeof Worksheet>>();

  /** Keeps the figures before the step is judged by them. */
  export const save = () => form?.save() ?? Promise.resolve(false);
</script>

{#if failed}
  <Trouble problem={asProblem(failed)} again={() => filled.refetch()} />
{:else if view && filled.data}
  <p class="quiet mb-4">{view.about}</p>
  {#key here?.version}
    <Worksheet bind:this={form} sheet={view} filled={here} owner={{ endpoint }} mayWork />
  {/key}
{:else}
  <Loading />
{/if}
