<script lang="ts">
  import type { Schemas } from '../../api/client';

  /** What may be seen, one button each; the figure beside it is its key. */
  let {
    outcomes,
    answer,
    keys = true,
  }: {
    outcomes: Schemas['OutcomeView'][];
    answer: (outcome: Schemas['OutcomeView']['outcome']) => void;
    keys?: boolean;
  } = $props();

  function press(event: KeyboardEvent) {
    const typing = (event.target as HTMLElement).closest('input:not([type=radio]), select, textarea, dialog');
    const chosen = outcomes[Number(event.key) - 1];
    if (keys && chosen && !typing && !event.ctrlKey) answer(chosen.outcome);
  }
</script>

<svelte:window onkeydown={press} />
<div class="mt-3 flex flex-wrap gap-2">
  {#each outcomes as o, i (o.outcome)}
    <button class="btn btn-outline btn-primary" onclick={() => answer(o.outcome)}
      >{o.words}
      {#if keys}<kbd>{i + 1}</kbd>{/if}</button
    >
  {/each}
</div>
