<script lang="ts">
  import type { Schemas } from '../../api/client';

  /** One sheet as it will be printed; a free place can be chosen as the first. */
  let {
    grid,
    labels,
    first,
    choose,
  }: {
    grid: Schemas['LabelGrid'];
    labels: Schemas['PlacedLabel'][];
    first: number;
    choose?: (place: number) => void;
  } = $props();
  const FACE: Record<string, string> = {
    WORDS: "font-family: 'Atkinson Hyperlegible Next Variable', sans-serif",
    WORDS_BOLD: "font-family: 'Atkinson Hyperlegible Next Variable', sans-serif; font-weight: 700",
    FIGURES: "font-family: 'Atkinson Hyperlegible Mono Variable', monospace",
    FIGURES_BOLD: "font-family: 'Atkinson Hyperlegible Mono Variable', monospace; font-weight: 700",
  };
  const places = $derived(
    Array.from({ length: grid.columns * grid.rows }, (_, n) => ({
      n: n + 1,
      x: grid.left + (n % grid.columns) * (grid.labelWidth + grid.acrossGap),
      y: grid.top + Math.floor(n / grid.columns) * (grid.labelHeight + grid.downGap),
    })),
  );
</script>

<svg
  class="sheet mb-4 w-full"
  style:max-width="{Math.min(grid.paperWidth * 3.6, 760)}px"
  viewBox="0 0 {grid.paperWidth} {grid.paperHeight}"
  role="img"
  aria-label="Sheet of {grid.columns * grid.rows} labels, {labels.length} of them printed"
>
  <rect width={grid.paperWidth} height={grid.paperHeight} class="paper" />
  {#each places as p (p.n)}
    <!-- A free place is chosen with the mouse; the field beside the sheet does the same from the keyboard. -->
    <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions -->
    <rect
      x={p.x}
      y={p.y}
      width={grid.labelWidth}
      height={grid.labelHeight}
      class="place"
      class:used={p.n < first}
      onclick={() => choose?.(p.n)}
    />
  {/each}
  <g class="printed">
    {#each labels as label, n (n)}
      {#each label.dark as d (d)}<path {d} />{/each}
      {#each label.lines as l (l)}<line
          x1={l.x1}
          y1={l.y1}
          x2={l.x2}
          y2={l.y2}
          stroke-dasharray={l.dashed ? '0.7' : undefined}
        />{/each}
      {#each label.words as w, i (i)}<text x={w.x} y={w.y} font-size={w.size} style={FACE[w.face]}
          >{w.text}</text
        >{/each}
    {/each}
  </g>
</svg>

<style>
  .sheet {
    border: 1px solid var(--color-base-300);
  }
  .paper {
    fill: #fff;
  }
  .place {
    fill: #fff;
    stroke: #c9c2b0;
    stroke-width: 0.25;
    cursor: pointer;
  }
  .place.used {
    fill: #e9e5da;
  }
  .place:hover {
    stroke: #1d5f8a;
    stroke-width: 0.6;
  }
  .printed {
    pointer-events: none;
    fill: #000;
    stroke-width: 0.15;
  }
  .printed line {
    stroke: #000;
  }
</style>
