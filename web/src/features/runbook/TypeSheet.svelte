<script lang="ts">
  import type { Schemas } from '../../api/client';
  import Figures from '../../ui/Figures.svelte';

  let { rows }: { rows: Schemas['SheetRow'][] } = $props();
</script>

<dl class="border-t-2 border-base-content">
  {#each rows as row (row.label)}
    <div class="grid items-baseline border-b border-base-300 py-1.5 sm:grid-cols-[9rem_1fr]">
      <dt class="quiet">{row.label}</dt>
      <dd>
        {#if row.figures && row.value}
          <Figures value={row.value} class="text-[clamp(1.6rem,5.5vw,2.3rem)] leading-tight font-semibold" />
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
