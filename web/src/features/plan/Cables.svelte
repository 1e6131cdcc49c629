<script lang="ts">
  import type { Schemas } from '../../api/client';
  import { at } from '../../router';

  let { siteId, cables, gear }: { siteId: number; cables: Schemas['Cable'][]; gear: Schemas['GearView'][] } =
    $props();
  const ROW = 30;
  const TOP = 14;
  const USUAL_WIDTH = 1000;
  let measured = $state(0);
  const width = $derived(measured || USUAL_WIDTH);
  const left = $derived(Math.min(400, width * 0.34));
  const right = $derived(width - 190);
  const middle = $derived((left + right) / 2);
  const used = $derived(new Set(cables.map((c) => c.port)));
  // Ports in their own order, gear by gear; only those that something hangs on, and those that lead upwards.
  const ports = $derived(
    gear.flatMap((g) =>
      g.ports
        .filter((p) => used.has(`${g.name} ${p.number}`) || p.role === 'WAN' || p.role === 'UPLINK')
        .map((p, i) => ({ label: `${g.name} ${p.number}`, role: p.role, first: i === 0 })),
    ),
  );
  const rowOf = $derived(new Map(ports.map((p, i) => [p.label, i])));
  const height = $derived(TOP * 2 + Math.max(cables.length, ports.length) * ROW);
  const y = (row: number) => TOP + row * ROW + ROW / 2;
  const COLOURS = {
    OPEN: 'var(--color-secondary)',
    PLANNED: 'var(--color-accent)',
    PLUGGED_IN: 'var(--color-success)',
    WRONG: 'var(--color-error)',
  } as const;
  const WORDS = {
    OPEN: 'not planned',
    PLANNED: 'planned',
    PLUGGED_IN: 'plugged in',
    WRONG: 'wrong',
  } as const;
</script>

<div bind:clientWidth={measured} class="mt-2">
  <svg
    {width}
    {height}
    viewBox="0 0 {width} {height}"
    fill="none"
    class="block text-[14px]"
    role="group"
    aria-label="Cables from places through outlets to ports"
  >
    {#each cables as c, i (c.endpointId)}
      {@const end = rowOf.get(c.port)}
      {#if end !== undefined}
        <path
          d="M{left} {y(i)}H{middle - 44}C{middle + 60} {y(i)} {right - 120} {y(end)} {right - 12} {y(end)}"
          stroke={COLOURS[c.state]}
          stroke-width={c.state === 'PLUGGED_IN' ? 3 : 2}
          stroke-dasharray={c.state === 'PLANNED' ? '7 4' : undefined}
        />
        <path d="M{right - 12} {y(end) - 5}h9v10h-9z" fill={COLOURS[c.state]} />
      {:else}
        <path d="M{left} {y(i)}h56" stroke={COLOURS[c.state]} stroke-width="2" stroke-dasharray="2 4" />
      {/if}
      {#if c.state === 'WRONG'}<path
          d="M{left + 28} {y(i) - 6}l6 6-6 6M{left + 34} {y(i)}h8"
          stroke="var(--color-error)"
          stroke-width="2"
        />{/if}
    {/each}
    {#each cables as c, i (c.endpointId)}
      <a
        href={at(siteId, 'plan', c.endpointId)}
        aria-label="{c.endpoint}, {WORDS[c.state]}{c.port ? ', to ' + c.port : ''}"
      >
        <text x={left - 10} y={y(i) + 5} text-anchor="end" fill="currentColor" class="font-semibold"
          >{c.endpoint}</text
        >
      </a>
      {#if i === 0 || cables[i - 1]?.place !== c.place}
        <text x="2" y={y(i) + 5} class="fill-secondary">{c.place || 'no place yet'}</text>
        {#if i > 0}<path d="M0 {y(i) - ROW / 2}H{left - 8}" stroke="var(--color-base-300)" />{/if}
      {/if}
      {#if c.outlet}
        <rect
          x={middle - 92}
          y={y(i) - 10}
          width="60"
          height="20"
          rx="3"
          fill="var(--color-base-100)"
          stroke={c.state === 'WRONG' ? 'var(--color-error)' : 'var(--manila-edge)'}
        />
        <text
          x={middle - 62}
          y={y(i) + 5}
          text-anchor="middle"
          fill="currentColor"
          class="font-mono text-[12.5px]">{c.outlet.slice(0, 7)}</text
        >
      {/if}
    {/each}
    {#each ports as p, i (p.label)}
      {#if p.first && i > 0}<path d="M{right} {y(i) - ROW / 2}H{width}" stroke="var(--color-base-300)" />{/if}
      <text x={right + 6} y={y(i) + 5} fill="currentColor" class="font-mono text-[13px]">{p.label}</text>
      {#if p.role !== 'LAN'}<text
          x={width - 4}
          y={y(i) + 5}
          text-anchor="end"
          class="fill-secondary text-[12px]"
          >{p.role === 'UPLINK' ? 'uplink' : p.role === 'OFF' ? 'off' : 'WAN'}</text
        >{/if}
    {/each}
  </svg>
</div>
