<script lang="ts">
  import Phone from '@lucide/svelte/icons/phone';
  import type { Schemas } from '../../api/client';
  import Figures from '../../ui/Figures.svelte';

  let { rows }: { rows: Schemas['SheetRow'][] } = $props();
  // Over the phone the words stand under the figures, and each field is ticked when it was repeated rightly.
  let dictating = $state(false);
  let heard = $state<string[]>([]);
  const spoken = $derived(rows.filter((r) => r.spoken.length));
</script>

<div class="mb-1 flex flex-wrap items-center gap-3">
  <button
    type="button"
    class="btn btn-ghost px-2 btn-sm"
    aria-pressed={dictating}
    onclick={() => ((dictating = !dictating), (heard = []))}
    ><Phone size={16} aria-hidden="true" />{dictating
      ? 'Enter it yourself'
      : 'Dictate it over the phone'}</button
  >
  {#if dictating}<p class="text-sm" role="status">
      {heard.length === spoken.length
        ? 'All repeated rightly. Now read back what the device shows.'
        : `Let each be repeated: ${heard.length} of ${spoken.length}`}
    </p>{/if}
</div>
<dl class="border-t-2 border-base-content">
  {#each rows as row (row.label)}
    <div class="grid items-baseline border-b border-base-300 py-1.5 sm:grid-cols-[9rem_1fr]">
      <dt class="quiet">{row.label}</dt>
      <dd>
        {#if row.figures && row.value}
          <Figures value={row.value} class="text-[clamp(1.6rem,5.5vw,2.3rem)] leading-tight font-semibold" />
          {#if dictating}
            <p class="text-lg">
              {row.spoken.join(' point ')}
            </p>
            <label class="flex items-center gap-2 text-sm"
              ><input type="checkbox" class="size-4" value={row.label} bind:group={heard} />{row.label} was repeated
              rightly</label
            >
          {/if}
        {:else if row.figures}
          <span class="text-lg">leave it empty</span>
        {:else}
          <span class="text-xl font-semibold">{row.value}</span>
          {#if row.leaveAlone}<span class="quiet ml-2">leave as it is</span>{/if}
        {/if}
      </dd>
    </div>
  {/each}
</dl>
