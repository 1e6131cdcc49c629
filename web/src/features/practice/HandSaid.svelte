<script lang="ts">
  /** Somebody reads out on the phone: one group after the other, each gone when the next one comes. */
  let { groups }: { groups: string[] } = $props();
  const WORD = 550;
  let at = $state(0);
  const words = (group: string) => group.split(' ').length;

  $effect(() => {
    if (at >= groups.length) return;
    const timer = setTimeout(() => (at += 1), 500 + WORD * words(groups[at] ?? ''));
    return () => clearTimeout(timer);
  });
  function again() {
    at = 0;
  }
</script>

<div class="max-w-xl border-l-4 border-base-content bg-base-200 px-4 py-3" aria-live="polite">
  {#if at < groups.length}
    <p class="text-2xl">“{at ? 'point ' : ''}{groups[at]}{at + 1 < groups.length ? ' …' : ''}”</p>
  {:else}
    <p class="text-2xl">“Got it?”</p>
  {/if}
  <p class="quiet mt-1 flex items-center justify-between text-sm">
    <span>{at < groups.length ? `Group ${at + 1} of ${groups.length}` : 'That was all of it.'}</span>
    <button class="btn btn-ghost btn-sm" type="button" onclick={again}>Say it again</button>
  </p>
</div>
