<script lang="ts">
  import type { Schemas } from '../../../api/client';
  import Knot from '../../../ui/Knot.svelte';
  import Drawing from './Drawing.svelte';

  /** What a worksheet says: the results, what speaks against it with the way out, and its drawing. */
  let { judgement, holds }: { judgement: Schemas['Judgement']; holds: boolean } = $props();
  const missing = $derived(judgement.findings.filter((f) => f.code === 'MISSING'));
  const said = $derived(judgement.findings.filter((f) => f.code !== 'MISSING'));
  const ORDER = { STOPS: 0, WARNS: 1, NOTES: 2 };
  const sorted = $derived(said.toSorted((a, b) => ORDER[a.weight] - ORDER[b.weight]));
</script>

<div role="status">
  {#if missing.length}
    <p class="quiet">
      {missing.length === 1 ? 'One figure is' : `${missing.length} figures are`} still to be keyed in.
    </p>
  {/if}
  {#if judgement.results.length}
    <dl class="border-t-2 border-base-content">
      {#each judgement.results as r (r.code)}
        <div class="flex flex-wrap items-baseline justify-between gap-x-4 border-b border-base-300 py-1.5">
          <dt class="quiet">{r.label}</dt>
          <dd class="text-lg font-semibold">{r.text}</dd>
        </div>
      {/each}
    </dl>
  {/if}
  {#if !missing.length && holds && !sorted.some((f) => f.weight === 'WARNS')}
    <p class="mt-3 flex items-center gap-2 font-semibold">
      <Knot state="PASSED" size={24} />It goes like this.
    </p>
  {/if}
  {#each sorted as f (f.code + f.field)}
    <div
      class="mt-3 border-l-4 pl-3 {f.weight === 'STOPS'
        ? 'border-error'
        : f.weight === 'WARNS'
          ? 'border-accent'
          : 'border-base-300'}"
      data-finding={f.code}
    >
      <p class={f.weight === 'NOTES' ? '' : 'font-semibold'}>{f.message}</p>
      {#if f.wayOut}<p>{f.wayOut}</p>{/if}
    </div>
  {/each}
</div>
{#each judgement.pictures as picture (picture.title)}<Drawing {picture} />{/each}
