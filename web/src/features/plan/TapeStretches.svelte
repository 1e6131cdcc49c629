<script lang="ts">
  import type { Schemas } from '../../api/client';
  import type { Window } from './tape';

  let {
    segment,
    seen,
    x,
    width,
    top,
  }: {
    segment: Schemas['SegmentView'];
    seen: Window;
    x: (host: number) => number;
    width: number;
    top: number;
  } = $props();
  const PATTERNS = ['hatch', 'dots', 'bars'];
  const LETTER = 6.9;

  // Names above the tape go one line up when they would run into the one before; without room on either they are left out.
  const stretches = $derived.by(() => {
    const ends = [-Infinity, -Infinity];
    return [
      ...segment.series.map((s, i) => ({ ...s, pattern: PATTERNS[i % PATTERNS.length] })),
      ...segment.pools.map((s) => ({ ...s, pattern: 'braid' })),
    ]
      .filter((s) => s.toHost >= seen.from && s.fromHost <= seen.to)
      .sort((a, b) => a.fromHost - b.fromHost)
      .map((s) => {
        const left = Math.max(2, x(s.fromHost - 0.5));
        const right = Math.min(width - 2, x(s.toHost + 0.5));
        const label = `${s.name}, ${s.fromHost} to ${s.toHost}`;
        const at = Math.max(2, Math.min(left, width - label.length * LETTER));
        const line = ends.findIndex((end) => at >= end + 10);
        if (line >= 0) ends[line] = at + label.length * LETTER;
        return { ...s, label, left, right, at, line };
      });
  });
</script>

<defs>
  <pattern id="braid" width="14" height="20" patternUnits="userSpaceOnUse">
    <path
      d="M0 0C7 5 7 15 14 20M14 0C7 5 7 15 0 20"
      stroke="var(--color-primary)"
      stroke-opacity=".55"
      stroke-width="1.6"
    />
  </pattern>
  <pattern id="hatch" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
    <path d="M0 0V7" stroke="var(--color-accent)" stroke-opacity=".65" stroke-width="2.4" />
  </pattern>
  <pattern id="dots" width="7" height="7" patternUnits="userSpaceOnUse">
    <circle cx="3" cy="3" r="1.5" fill="var(--color-success)" fill-opacity=".75" />
  </pattern>
  <pattern id="bars" width="8" height="8" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
    <path d="M0 0V8M4 0V8" stroke="var(--color-secondary)" stroke-opacity=".55" stroke-width="1.3" />
  </pattern>
</defs>
{#each stretches as s (s.label)}
  <rect x={s.left} y={top + 15} width={Math.max(0, s.right - s.left)} height="19" fill="url(#{s.pattern})" />
  <path d="M{s.left} {top - 20}V{top - 26}H{s.right}V{top - 20}" stroke="var(--color-secondary)" />
  {#if s.line >= 0}
    <text x={s.at} y={top - (s.line ? 52 : 34)} fill="currentColor" class="font-sans text-[13.5px]"
      >{s.label}</text
    >{/if}
{/each}
