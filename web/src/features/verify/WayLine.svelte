<script lang="ts">
  import type { Schemas } from '../../api/client';

  /** The way of a packet: whole where it is known to be good, dotted where it may break, open where it must. */
  let { way }: { way: Schemas['WayView'][] } = $props();
  const LINES = {
    GOOD: 'border-solid',
    UNSEEN: 'border-none',
    OPEN: 'border-dotted',
    BREAK: 'border-none',
  };
  const says = (w: Schemas['WayView']) =>
    ({
      GOOD: 'good',
      UNSEEN: 'not seen',
      BREAK: 'breaks',
      OPEN: Math.max(1, Math.round(w.share * 100)) + '%',
    })[w.state];
</script>

<ol
  class="mt-3 grid grid-cols-[repeat(auto-fit,minmax(3.1rem,1fr))] gap-y-3 text-xs"
  aria-label="Where it breaks"
>
  {#each way as w (w.title)}
    <li class="pr-1" data-stretch={w.state}>
      <span
        class="relative mb-1 block h-3 border-b-[3px] border-base-content {LINES[w.state]}"
        aria-hidden="true"
      >
        {#if w.state === 'BREAK'}<svg
            class="absolute inset-0 h-4 w-full text-error"
            viewBox="0 0 60 16"
            fill="none"
            stroke="currentColor"
            stroke-width="3"><path d="M0 11H16l8-7M60 11H44l-8 -7" /></svg
          >{/if}
      </span>
      <span class="block leading-tight">{w.title}</span>
      <span
        class={w.state === 'GOOD' || w.state === 'UNSEEN'
          ? 'quiet'
          : w.state === 'BREAK'
            ? 'font-semibold text-error'
            : 'font-mono'}>{says(w)}</span
      >
      {#if w.next}<span class="block font-semibold">look here</span>{/if}
    </li>
  {/each}
</ol>
