<script lang="ts">
  import type { Schemas } from '../../api/client';
  import { serverClock } from '../../ui/now.svelte';
  import { dayTime, hourOf, when } from '../../ui/time';
  import { at } from '../../router';
  import { marks, strands } from './strands';
  import TurnByTurn from './TurnByTurn.svelte';

  /** The plan as a picture: each pair of hands a strand, each device a cord that hangs beside it while nobody stands there. */
  let { visit, plan }: { visit: Schemas['VisitView']; plan: Schemas['PlanOfVisit'] } = $props();
  let wide = $state(1000);
  const MARGIN = 8;
  const LANE = 11;
  const width = $derived(Math.max(400, wide - 2 * MARGIN));
  const rows = $derived(
    strands(
      plan,
      visit.people.map((p) => p.name),
      width,
    ),
  );
  const tops = $derived(
    rows.reduce<number[]>((all, r) => [...all, (all.at(-1) ?? 0) + 78 + r.lanes * LANE], [0]),
  );
  const hour = (iso: string) => when(iso, serverClock.millis);
  const letters = (text: string, px: number) => {
    const most = Math.floor(px / 7.2);
    return text.length <= most ? text : most > 3 ? text.slice(0, most - 1) + '…' : '';
  };
  const ofDay = (iso?: string) => (iso ? dayTime(iso).split(',')[0] : '');
  const hours = $derived(marks(plan, width));
  /** Where another day begins than the one of the mark before; the first day stands above already. */
  const dayOfMark = (i: number) => i > 0 && ofDay(hours[i]?.at) !== ofDay(hours[i - 1]?.at);
  const now = $derived(
    ((serverClock.millis - Date.parse(plan.from)) / (Date.parse(plan.finish) - Date.parse(plan.from))) *
      width,
  );
</script>

<section class="mt-5" aria-label="Who does what when">
  <div bind:clientWidth={wide} class="no-print max-[700px]:hidden">
    <svg
      width={width + 2 * MARGIN}
      height={(tops.at(-1) ?? 0) + 26}
      viewBox="{-MARGIN} 0 {width + 2 * MARGIN} {(tops.at(-1) ?? 0) + 26}"
      role="img"
      aria-label="The turns of each person along the hours; the same stands in the list below"
    >
      {#each hours as m, i (m.at)}
        <line class="hour" x1={m.x} x2={m.x} y1="0" y2={tops.at(-1)} />
        <text
          class="quiet-text"
          x={m.x}
          y={(tops.at(-1) ?? 0) + 18}
          text-anchor={m.x < 20 ? 'start' : m.x > width - 12 ? 'end' : 'middle'}
          >{dayOfMark(i) ? dayTime(m.at) : hourOf(m.at)}</text
        >
      {/each}
      {#each rows as row, i (row.name)}
        {@const top = tops[i] ?? 0}
        <text x="0" y={top + 13} class="name">{row.name}</text>
        <line class="strand" x1="0" x2={width} y1={top + 50} y2={top + 50} />
        {#each row.stays as stay (stay.x)}
          <line class="stay" x1={stay.x} x2={stay.x + stay.width - 1} y1={top + 33} y2={top + 33} />
          <text class="place" x={stay.x} y={top + 29}>{letters(stay.place, stay.width)}</text>
        {/each}
        {#each row.turns as d, k (d.turn.unitId + ' ' + d.turn.from)}
          {@const before = row.turns[k - 1]}
          {#if before && before.turn.siteId !== d.turn.siteId && d.x - before.x - before.width > 80}
            <text class="quiet-text" text-anchor="middle" x={(before.x + before.width + d.x) / 2} y={top + 44}
              >on the way</text
            >
          {/if}
          {#if d.lane >= 0}
            {@const y = top + 74 + d.lane * LANE}
            {@const r = Math.min(8, (d.end - d.x - d.width) / 2)}
            <path
              class="cord"
              d="M{d.x + d.width} {top + 62} C{d.x + d.width} {y} {d.x + d.width} {y} {d.x +
                d.width +
                r} {y} H{d.end - r}"
            />
            <circle class="end" cx={d.end - r} cy={y} r="3" />
          {/if}
          <a
            href={d.turn.unitId > 0 ? at(d.turn.siteId, 'onboard', d.turn.unitId) : undefined}
            aria-hidden="true"
            tabindex="-1"
          >
            <rect
              class="turn"
              class:tight={d.turn.tight}
              x={d.x}
              y={top + 36}
              width={Math.max(2, d.width - 1)}
              height="27"
              rx="3"
            />
            <text class="on" x={d.x + 5} y={top + 54}>{letters(d.turn.unit, d.width - 8)}</text>
            <title>{d.turn.unit}: {d.turn.title}, {hour(d.turn.from)} to {hour(d.turn.until)}</title>
          </a>
        {/each}
      {/each}
      {#if visit.head.state === 'RUNNING' && now > 0 && now < width}
        <line class="now" x1={now} x2={now} y1="0" y2={tops.at(-1)} />
      {/if}
    </svg>
    <p class="quiet mt-1 text-sm">
      Orange is tight: if that is late, all of it is late. A cord below is a device that runs by itself; the
      line above says where they are.
    </p>
  </div>
  <TurnByTurn {rows} open={wide < 700} {hour} />
</section>

<style>
  text {
    font-size: 13px;
    fill: var(--color-base-content);
  }
  .name {
    font-weight: 700;
  }
  .place {
    font-size: 12px;
    fill: var(--color-secondary);
  }
  .stay {
    stroke: var(--color-secondary);
    stroke-width: 1.2;
  }
  .quiet-text {
    fill: var(--color-secondary);
  }
  .hour {
    stroke: var(--color-base-300);
  }
  .strand {
    stroke: var(--color-secondary);
    stroke-width: 2.6;
  }
  .turn {
    fill: var(--color-manila);
    stroke: var(--color-manila-edge);
  }
  .turn.tight {
    stroke: var(--color-accent);
    stroke-width: 2.6;
  }
  .on {
    fill: var(--color-base-content);
    font-weight: 600;
    pointer-events: none;
  }
  .cord {
    fill: none;
    stroke: var(--color-accent);
    stroke-width: 1.8;
  }
  .end {
    fill: var(--color-accent);
  }
  .now {
    stroke: var(--color-primary);
    stroke-width: 2;
    stroke-dasharray: 4 3;
  }
</style>
