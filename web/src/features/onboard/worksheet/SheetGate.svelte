<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { asProblem, type Schemas } from '../../../api/client';
  import { outbox, withUnsentSheets } from '../../../api/outbox.svelte';
  import Loading from '../../../ui/Loading.svelte';
  import Trouble from '../../../ui/Trouble.svelte';
  import { filledQuery, worksheetsQuery } from './queries';
  import Worksheet from './Worksheet.svelte';

  /** The worksheet that a step waits for. */
  let { sheet, endpoint: e }: { sheet: string; endpoint: Schemas['EndpointView'] } = $props();
  const all = createQuery(() => worksheetsQuery);
  const filled = createQuery(() => filledQuery({ endpoint: e.id }));
  const view = $derived(all.data?.find((w) => w.key === sheet));
  const here = $derived(withUnsentSheets(filled.data ?? [], outbox.of(e.id)).find((f) => f.sheet === sheet));
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
    <Worksheet bind:this={form} sheet={view} filled={here} owner={{ endpoint: e.id }} device={e} mayWork />
  {/key}
{:else}
  <Loading />
{/if}
