<script lang="ts">
  import type { Schemas } from '../../../api/client';

  /** The figures under a drawing; the last of them ends where the drawing does. */
  let { picture }: { picture: Schemas['Picture'] } = $props();
  const left = (at: number) => `${Math.min(100, (100 * at) / picture.to)}%`;
</script>

<div class="quiet relative h-4 text-xs" aria-hidden="true">
  {#each picture.ticks as t, i (t.at)}
    <span
      class="absolute whitespace-nowrap {i === 0
        ? ''
        : t.at > picture.to * 0.93
          ? '-translate-x-full'
          : '-translate-x-1/2'}"
      style:left={left(t.at)}>{t.label}</span
    >
  {/each}
</div>
