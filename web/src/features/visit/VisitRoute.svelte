<script lang="ts">
  import type { SvelteMap } from 'svelte/reactivity';
  import type { Problem, Schemas } from '../../api/client';
  import TextField from '../../ui/TextField.svelte';
  import type { Chosen } from './visitForm';
  import VisitUnits from './VisitUnits.svelte';

  /** Another site on the same way, and the drive there; what was chosen at one stays when another is looked at. */
  let {
    also = $bindable(),
    travel = $bindable(),
    sites,
    chosen,
    far,
    problem,
  }: {
    also: number;
    travel: string;
    sites: Schemas['SummaryRow'][];
    chosen: SvelteMap<number, Chosen>;
    far: Schemas['EndpointLine'][];
    problem: Problem | null;
  } = $props();
</script>

{#if sites.length}
  <div class="grid grid-cols-[1fr_8rem] items-start gap-3">
    <label class="block">
      <span class="mb-1 block font-bold">On the same way</span>
      <select class="select w-full" bind:value={also}>
        <option value={0}>No other site</option>
        {#each sites as s (s.id)}<option value={s.id}>{s.name}</option>{/each}
      </select>
    </label>
    {#if also}<TextField
        label="Drive, min"
        mono
        mode="numeric"
        bind:value={travel}
        error={problem?.field('travel')}
        hint="From site to site"
      />{/if}
  </div>
  {#if also}<VisitUnits {chosen} open={far} problem={null} far />{/if}
{/if}
