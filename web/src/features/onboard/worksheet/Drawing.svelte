<script lang="ts">
  import type { Schemas } from '../../../api/client';
  import Axis from './Axis.svelte';

  /** Rows of stretches along one axis; every tone has a pattern of its own beside its colour. */
  let { picture }: { picture: Schemas['Picture'] } = $props();
  type Part = Schemas['PicturePart'];
  const share = (at: number) => `${Math.min(100, (100 * at) / picture.to)}%`;
  const wide = (p: Part) => (p.to - p.from) / picture.to > 0.016 * (p.label.length + 2);
  const key = $derived([
    ...new Map(
      picture.rows
        .flatMap((r) => r.parts)
        .filter((p) => p.label && !wide(p))
        .map((p) => [p.tone + p.label, p]),
    ).values(),
  ]);
</script>

<figure class="mt-5 overflow-x-clip" aria-label={picture.title}>
  <figcaption class="mb-2 text-sm font-semibold">{picture.title}</figcaption>
  <div class="grid grid-cols-[minmax(5rem,auto)_minmax(0,1fr)] items-center gap-x-3 gap-y-1.5">
    {#if picture.marks.length}
      <span></span>
      <div class="relative h-4 text-xs">
        {#each picture.marks as m (m.label)}
          <span
            class="absolute bottom-0 whitespace-nowrap {m.at > picture.to * 0.75
              ? '-translate-x-full pr-1'
              : 'pl-1'}"
            style:left={share(m.at)}>{m.label}</span
          >
        {/each}
      </div>
    {/if}
    {#each picture.rows as row, i (i)}
      <span class="max-w-40 text-sm leading-tight">{row.label}</span>
      <div class="relative h-8 bg-base-200">
        {#each row.parts as p (p.from)}
          <div
            class="part absolute inset-y-0 overflow-hidden px-1 text-xs leading-8 font-semibold whitespace-nowrap"
            data-tone={p.tone}
            style:left={share(p.from)}
            style:width={share(p.to - p.from)}
            title={p.label}
          >
            {wide(p) ? p.label : ''}
          </div>
        {/each}
        {#each picture.marks as m (m.label)}
          <span class="absolute -inset-y-1 w-0.5 bg-base-content" style:left={share(m.at)}></span>
        {/each}
      </div>
    {/each}
    <span></span>
    <Axis {picture} />
  </div>
  {#if key.length}
    <ul class="mt-2 flex flex-wrap gap-x-4 gap-y-1 text-sm" aria-label="What the drawing shows">
      {#each key as p (p.tone + p.label)}
        <li class="flex items-center gap-1.5"><i class="part size-4" data-tone={p.tone}></i>{p.label}</li>
      {/each}
    </ul>
  {/if}
</figure>

<style>
  .part {
    border-right: 1px solid var(--color-base-100);
  }
  .part[data-tone='GOOD'] {
    background: var(--color-success);
    color: var(--color-success-content);
  }
  .part[data-tone='BAD'] {
    background: repeating-linear-gradient(
      45deg,
      var(--color-error) 0 6px,
      color-mix(in oklch, var(--color-error) 88%, black) 6px 9px
    );
    color: var(--color-error-content);
  }
  .part[data-tone='RUNS'] {
    background: repeating-linear-gradient(90deg, var(--manila-edge) 0 3px, var(--manila) 3px 9px);
    color: var(--color-base-content);
  }
  .part[data-tone='WAITS'] {
    background: var(--tape);
    color: var(--color-base-content);
  }
  .part[data-tone='SPARE'] {
    background: repeating-linear-gradient(
      135deg,
      var(--color-base-300) 0 1.5px,
      var(--color-base-200) 1.5px 7px
    );
    color: var(--color-base-content);
  }
</style>
