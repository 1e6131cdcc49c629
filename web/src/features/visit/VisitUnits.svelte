<script lang="ts">
  import type { SvelteMap } from 'svelte/reactivity';
  import type { Problem, Schemas } from '../../api/client';
  import Trouble from '../../ui/Trouble.svelte';
  import type { Chosen } from './visitForm';

  /** What is to be set up, and whether at its place or on the bench. */
  let {
    chosen,
    open,
    problem,
    far = false,
  }: {
    chosen: SvelteMap<number, Chosen>;
    open: Schemas['EndpointLine'][];
    problem: Problem | null;
    /** At another site, where no bench is reckoned with. */
    far?: boolean;
  } = $props();
</script>

<fieldset class="content-start">
  <legend class="font-bold">{far ? 'What is to be set up there' : 'What is to be set up'}</legend>
  <Trouble problem={problem?.field('units') ? problem : null} />
  {#if open.length}
    <ul class="mt-1 max-h-[28rem] overflow-y-auto">
      {#each open as e (e.id)}
        {@const how = chosen.get(e.id)}
        <li class="flex items-center gap-3 border-b border-base-300 py-1">
          <label class="flex min-w-0 flex-1 items-center gap-3">
            <input
              type="checkbox"
              class="size-4 shrink-0"
              checked={chosen.has(e.id)}
              onchange={(c) => {
                if (c.currentTarget.checked) chosen.set(e.id, { bench: false, first: false });
                else chosen.delete(e.id);
              }}
            />
            <span class="min-w-0 truncate">{e.name} <span class="quiet text-sm">{e.place}</span></span>
          </label>
          {#if how}
            {#if !far}{@render also(e, 'on the bench', how.bench, () => ({ ...how, bench: !how.bench }))}{/if}
            {@render also(e, 'before all others', how.first, () => ({ ...how, first: !how.first }))}
          {/if}
        </li>
      {/each}
    </ul>
  {:else}
    <p class="mt-1">Nothing waits to be set up here. Plan an endpoint first.</p>
  {/if}
</fieldset>

{#snippet also(e: Schemas['EndpointLine'], what: string, checked: boolean, other: () => Chosen)}
  <label class="flex items-center gap-1.5 text-sm">
    <input
      type="checkbox"
      class="size-4 shrink-0"
      {checked}
      onchange={() => chosen.set(e.id, other())}
    />{what}<span class="sr-only">: {e.name}</span>
  </label>
{/snippet}
