<script lang="ts">
  import Knot from '../../ui/Knot.svelte';
  import type { HandDone } from './queries';

  /** How a round of hands went. Nothing of it is kept. */
  let { done, leave, again }: { done: HandDone[]; leave: () => void; again: () => void } = $props();
  const DRILLS = {
    TAKE_DOWN: 'An address on the phone',
    LABEL: 'A MAC on a label',
    SEAL: 'A seal',
    FREE_PORT: 'A free port',
  };
  const right = $derived(done.filter((d) => d.right).length);
  const seconds = $derived(done.reduce((sum, d) => sum + d.seconds, 0));
</script>

<h1>{right} of {done.length} right</h1>
<p class="quiet">In {Math.round(seconds)} seconds of work. Nothing of it is kept.</p>
<ol class="mt-5 max-w-3xl">
  {#each done as d, i (i)}
    <li class="flex items-start gap-3 border-b border-base-300 py-2">
      <Knot state={d.right ? 'PASSED' : 'FAILED'} />
      <span class="min-w-0 flex-1">
        <span class="font-semibold">{DRILLS[d.drill]}</span>
        {#if !d.right}<span class="block"
            >{#if d.typed}You had <span class="font-mono">{d.typed}</span>.{/if}
            {d.says}</span
          >{/if}
      </span>
      <span class="font-mono">{d.seconds.toFixed(1)} s</span>
    </li>
  {/each}
</ol>
<div class="mt-5 flex flex-wrap gap-2">
  <button class="btn btn-primary" onclick={again}>Ten more</button>
  <button class="btn btn-outline" onclick={leave}>Back to practice</button>
</div>
