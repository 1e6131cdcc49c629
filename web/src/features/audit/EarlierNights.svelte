<script lang="ts">
  import type { Schemas } from '../../api/client';
  import Knot from '../../ui/Knot.svelte';
  import { dayOf, dayTime } from '../../ui/time';

  /** The nights before, and what each came to in a sentence. */
  let { nights, chosen = $bindable() }: { nights: Schemas['NightLineView'][]; chosen: number } = $props();
  const shown = $derived(nights.some((n) => n.id === chosen) ? chosen : nights[0]?.id);
</script>

<section aria-label="Earlier">
  <h2>Earlier</h2>
  <ul class="mt-1 max-h-72 overflow-y-auto">
    {#each nights as n (n.id)}
      <li class="flex items-start gap-2 border-b border-base-300 py-1.5">
        <Knot state={n.tells ? 'ACTIVE' : 'PASSED'} size={20} />
        <button
          class="min-w-0 flex-1 text-left text-sm"
          aria-current={n.id === shown || undefined}
          onclick={() => (chosen = n.id)}
        >
          <span class="block font-semibold underline-offset-2 hover:underline"
            >{n.morning ? `Night to ${dayOf(n.morning)}` : `${n.by}, ${dayTime(n.startedAt)}`}</span
          ><span class="quiet">{n.words}</span>
        </button>
      </li>
    {/each}
  </ul>
</section>
