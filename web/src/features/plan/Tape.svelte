<script lang="ts">
  import type { Schemas } from '../../api/client';
  import { at, go } from '../../router';
  import { hang, tickStep } from './tape';

  type Line = Schemas['EndpointLine'];
  let {
    siteId,
    segment,
    endpoints,
    kinds,
    chosen,
    proposedHost,
    proposedLabel,
  }: {
    siteId: number;
    segment: Schemas['SegmentView'];
    endpoints: Line[];
    kinds: Schemas['KindView'][];
    chosen: number;
    proposedHost: number | null;
    proposedLabel: string;
  } = $props();

  const TOP = 74;
  const ROWS = 4;
  const ROW = 44;
  const MOST_TAGS = 60;
  let width = $state(880);
  const hosts = $derived(segment.lastHost + 1);
  const x = $derived((host: number) => 6 + ((host + 0.5) / hosts) * (width - 12));
  const figure = $derived(tickStep(hosts, width, 46));
  const tick = $derived(tickStep(hosts, width, 6));
  const figures = $derived(
    Array.from({ length: Math.floor(segment.lastHost / figure) + 1 }, (_, i) => i * figure),
  );
  const ticks = $derived(Array.from({ length: Math.floor(segment.lastHost / tick) + 1 }, (_, i) => i * tick));

  // Names above the tape go one line up when they would run into the one before.
  const stretches = $derived.by(() => {
    let end = -Infinity;
    return [
      ...segment.series.map((s) => ({ ...s, pattern: 'hatch' })),
      ...segment.pools.map((s) => ({ ...s, pattern: 'braid' })),
    ]
      .sort((a, b) => a.fromHost - b.fromHost)
      .map((s) => {
        const label = `${s.name}, ${s.fromHost} to ${s.toHost}`;
        const at = Math.max(2, Math.min(x(s.fromHost - 0.5), width - label.length * 6.9));
        const up = at < end + 10;
        if (!up) end = at + label.length * 6.9;
        return { ...s, label, at, up };
      });
  });

  // A numbered one is known by its number; "payment terminal" behind it only takes room here.
  const short = (e: Line) => {
    const kind = kinds.find((k) => k.id === e.kind);
    const name =
      kind?.series && e.name.endsWith(' ' + kind.noun) ? e.name.slice(0, -kind.noun.length - 1) : e.name;
    return name.length > 24 ? name.slice(0, 23) + '…' : name;
  };
  const pins = $derived([
    ...endpoints.flatMap((e) => (e.host === null ? [] : [{ id: e.id, host: e.host, label: short(e) }])),
    ...(segment.gatewayHost === null ? [] : [{ id: 0, host: segment.gatewayHost, label: 'Gateway' }]),
    ...(proposedHost === null ? [] : [{ id: -1, host: proposedHost, label: proposedLabel }]),
  ]);
  const tags = $derived(hang(pins.slice(0, MOST_TAGS), x, width, ROWS));
  const height = $derived(TOP + 60 + (Math.max(0, ...tags.map((t) => t.row)) + 1) * ROW);
  const look = $derived((id: number) => {
    if (id === 0) return { fill: 'var(--color-base-200)', stroke: 'var(--color-primary)' };
    if (id === -1) return { fill: 'var(--color-base-100)', stroke: 'var(--color-accent)' };
    const frayed = endpoints.find((e) => e.id === id)?.knot === 'FRAYED';
    return {
      fill: 'var(--manila)',
      stroke: frayed
        ? 'var(--color-error)'
        : id === chosen
          ? 'var(--color-base-content)'
          : 'var(--manila-edge)',
    };
  });
</script>

<div class="mt-4" bind:clientWidth={width}>
  <svg
    {width}
    {height}
    viewBox="0 0 {width} {height}"
    fill="none"
    class="block font-mono text-[12.5px]"
    role="group"
    aria-label="Addresses of {segment.name} as a measuring tape"
  >
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
    </defs>
    <rect
      x="2"
      y={TOP}
      width={width - 4}
      height="36"
      rx="2"
      fill="var(--tape)"
      stroke="var(--manila-edge)"
      stroke-width="1.2"
    />
    {#each stretches as s (s.label)}
      {@const left = x(s.fromHost - 0.5)}
      {@const right = x(s.toHost + 0.5)}
      <rect x={left} y={TOP + 15} width={right - left} height="19" fill="url(#{s.pattern})" />
      <path d="M{left} {TOP - 20}V{TOP - 26}H{right}V{TOP - 20}" stroke="var(--color-secondary)" />
      <text x={s.at} y={TOP - (s.up ? 52 : 34)} fill="currentColor" class="font-sans text-[13.5px]"
        >{s.label}</text
      >
    {/each}
    {#each ticks as t (t)}
      <path
        d="M{x(t)} {TOP}v{t % figure === 0 ? 13 : 6}"
        stroke="var(--tape-ink)"
        stroke-width={t % figure === 0 ? 1.3 : 0.7}
      />
    {/each}
    {#each figures as f (f)}
      <text x={x(f)} y={TOP - 6} text-anchor="middle" fill="var(--tape-ink)">{f}</text>
    {/each}
    {#each tags as t (t.id)}
      {@const y = TOP + 58 + t.row * ROW}
      <path
        d="M{t.x} {TOP + 36}C{t.x} {TOP + 50} {t.left + t.width / 2} {y - 22} {t.left + t.width / 2} {y}"
        stroke={look(t.id).stroke}
        stroke-width="1.7"
      />
    {/each}
    {#each tags as t (t.id)}
      {@const y = TOP + 58 + t.row * ROW}
      <g class={t.id > 0 ? 'cursor-pointer' : ''}>
        <a
          href={t.id > 0 ? at(siteId, 'plan', t.id) : undefined}
          aria-label="{t.label}, host {t.host}"
          onclick={(e) => {
            e.preventDefault();
            if (t.id > 0) go(at(siteId, 'plan', t.id));
          }}
        >
          <path
            d="M{t.left + 8} {y}H{t.left + t.width - 8}L{t.left + t.width} {y + 8}V{y + 31}H{t.left}V{y + 8}Z"
            fill={look(t.id).fill}
            stroke={look(t.id).stroke}
            stroke-width={t.id > 0 && t.id === chosen ? 2.6 : 1.5}
            stroke-dasharray={t.id === -1 ? '5 3' : undefined}
          />
          <circle
            cx={t.left + t.width / 2}
            cy={y + 6}
            r="2.4"
            fill="var(--color-base-100)"
            stroke={look(t.id).stroke}
          />
          <text
            x={t.left + t.width / 2}
            y={y + 24}
            text-anchor="middle"
            fill="currentColor"
            class="font-sans text-[13.5px] font-semibold">{t.label}</text
          >
        </a>
      </g>
    {/each}
  </svg>
  {#if pins.length > MOST_TAGS}<p class="quiet text-sm">
      {pins.length - MOST_TAGS} more tags do not fit here; find them with <kbd>/</kbd>.
    </p>{/if}
</div>
