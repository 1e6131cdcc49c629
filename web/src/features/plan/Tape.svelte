<script lang="ts">
  import Minus from '@lucide/svelte/icons/zoom-out';
  import Plus from '@lucide/svelte/icons/zoom-in';
  import type { Schemas } from '../../api/client';
  import { at, go } from '../../router';
  import TapeStretches from './TapeStretches.svelte';
  import { clear, gather, hang, inside, pan, tickStep, zoom, type Window } from './tape';

  type Mark = Schemas['TapeMark'];
  let {
    siteId,
    segment,
    tape,
    chosen = 0,
    proposed = [],
    plant,
  }: {
    siteId: number;
    segment: Schemas['SegmentView'];
    tape: Schemas['TapeView'];
    chosen?: number;
    proposed?: { host: number; label: string }[];
    plant?: (host: number) => void;
  } = $props();

  const TOP = 74;
  const ROW = 40;
  const FEW = 64;
  const USUAL_WIDTH = 880;
  let measured = $state(0);
  const width = $derived(measured || USUAL_WIDTH);
  const last = $derived(segment.lastHost);
  let view = $state<Window | null>(null);
  const seen = $derived<Window>(view && view.to <= last ? view : { from: 0, to: last });
  const span = $derived(seen.to - seen.from + 1);
  const x = $derived((host: number) => 6 + ((host - seen.from + 0.5) / span) * (width - 12));
  const hostAt = (px: number) => Math.floor(seen.from + ((px - 6) / (width - 12)) * span);
  const wide = $derived(last > 255);
  // A host number of a wide prefix is easier known by the last two groups of its address.
  const base = $derived(segment.prefix.split(/[./]/).map(Number));
  const figure = (host: number) => {
    const number = (base[2] ?? 0) * 256 + (base[3] ?? 0) + host;
    return wide ? ((number >> 8) & 255) + '.' + (number & 255) : String(host);
  };
  const steps = (apart: number) => tickStep(span, width, apart);
  const marksOf = (step: number) => {
    const first = Math.ceil(seen.from / step) * step;
    return Array.from(
      { length: Math.max(0, Math.floor((seen.to - first) / step) + 1) },
      (_, i) => first + i * step,
    );
  };
  const figures = $derived(marksOf(steps(wide ? 64 : 46)));
  const ticks = $derived(
    marksOf(steps(6))
      .map((t) => `M${x(t).toFixed(1)} ${TOP}v6`)
      .join(''),
  );

  const short = (label: string) => (label.length > 24 ? label.slice(0, 23) + '…' : label);
  type Drawn = {
    id: number;
    host: number;
    label: string;
    look: 'tag' | 'gateway' | 'here' | 'partner';
    frayed: boolean;
  };
  const drawn = (m: Mark): Drawn => ({
    id: m.id,
    host: m.host,
    label: short(m.label),
    look: m.id === 0 ? 'partner' : 'tag',
    frayed: m.conflict || m.status === 'FAILED',
  });
  const shown = $derived(inside(tape.marks, seen));
  const pins = $derived(
    [
      ...shown.filter((m) => m.id > 0 || span <= FEW).map(drawn),
      ...(segment.gatewayHost === null ? [] : [segment.gatewayHost])
        .filter((host) => host >= seen.from && host <= seen.to)
        .map((host) => ({ id: -1, host, label: 'Gateway', look: 'gateway' as const, frayed: false })),
      ...proposed
        .filter((p) => p.host >= seen.from && p.host <= seen.to)
        .map((p, i) => ({ id: -2 - i, ...p, look: 'here' as const, frayed: false })),
    ].sort((a, b) => a.host - b.host),
  );
  const most = $derived(Math.max(16, Math.floor(width / 38)));
  const tags = $derived(hang(gather(pins, seen, most), x, width));
  const height = $derived(TOP + 60 + (Math.max(0, ...tags.map((t) => t.row)) + 1) * ROW);
  // One stroke for each pixel that holds anyone, however many they are.
  const notches = $derived(
    [...new Set(shown.map((m) => Math.round(x(m.host))))].map((px) => `M${px} ${TOP + 22}v14`).join(''),
  );
  const free = $derived(
    tape.free.filter((f) => f.toHost >= seen.from && f.fromHost <= seen.to && f.count > 1),
  );
  // Words stand beside what is drawn on the tape, never over it.
  const patterned = $derived(
    [...segment.series, ...segment.pools].map((s): [number, number] => [
      x(s.fromHost - 0.5),
      x(s.toHost + 0.5),
    ]),
  );
  let hovered = $state<number | null>(null);
  const hoveredFree = $derived(
    hovered !== null && tape.free.some((f) => f.fromHost <= (hovered ?? 0) && f.toHost >= (hovered ?? 0)),
  );
  let grabbed = $state<{ x: number; from: number; moved: boolean } | null>(null);

  function look(t: { look: string; frayed: boolean; id: number; count: number }) {
    if (t.frayed) return { fill: 'var(--manila)', stroke: 'var(--color-error)' };
    if (t.look === 'gateway') return { fill: 'var(--color-base-200)', stroke: 'var(--color-primary)' };
    if (t.look === 'here') return { fill: 'var(--color-base-100)', stroke: 'var(--color-accent)' };
    if (t.look === 'partner') return { fill: 'var(--color-base-100)', stroke: 'var(--manila-edge)' };
    const own = t.id === chosen && t.count === 1;
    return { fill: 'var(--manila)', stroke: own ? 'var(--color-base-content)' : 'var(--manila-edge)' };
  }

  const closer = (factor: number, host = (seen.from + seen.to) / 2) =>
    (view = zoom(seen, factor, host, last));
  const along = (by: number) => (view = pan(seen, by, last));

  function keys(e: KeyboardEvent) {
    if (e.ctrlKey || e.metaKey || e.altKey) return;
    if (e.key === '+' || e.key === '=') closer(0.5);
    else if (e.key === '-') closer(2);
    else if (e.key === '0' || e.key === 'Home') view = null;
    else if (e.key === 'ArrowLeft') along(-Math.ceil(span / 4));
    else if (e.key === 'ArrowRight') along(Math.ceil(span / 4));
    else return;
    e.preventDefault();
  }

  // The wheel zooms here, so the page must not scroll: only a listener that is not passive may say so.
  function wheel(node: SVGSVGElement) {
    const turned = (e: WheelEvent) => {
      if (span === last + 1 && e.deltaY > 0) return;
      e.preventDefault();
      closer(Math.exp(e.deltaY / 400), hostAt(e.offsetX));
    };
    node.addEventListener('wheel', turned, { passive: false });
    return { destroy: () => node.removeEventListener('wheel', turned) };
  }

  function open(t: { id: number; host: number; upTo: number; count: number }) {
    const margin = Math.max(2, Math.round((t.upTo - t.host) * 0.1));
    if (t.count > 1) view = { from: Math.max(0, t.host - margin), to: Math.min(last, t.upTo + margin) };
    else if (t.id > 0) go(at(siteId, 'plan', t.id));
  }

  function letGo(e: PointerEvent) {
    const host = hostAt(e.offsetX);
    const still = !grabbed?.moved;
    grabbed = null;
    if (still && plant && tape.free.some((f) => f.fromHost <= host && f.toHost >= host)) plant(host);
  }
</script>

<div class="mt-3" bind:clientWidth={measured}>
  <!-- The tape answers to keys as a whole; every tag on it is a link of its own. -->
  <!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
  <svg
    {width}
    {height}
    viewBox="0 0 {width} {height}"
    fill="none"
    class="block touch-pan-y rounded font-mono text-[12.5px] outline-none focus-visible:outline-3 focus-visible:outline-accent"
    role="group"
    tabindex="0"
    aria-label="Addresses of {segment.name} as a measuring tape, hosts {seen.from} to {seen.to}. Plus and minus zoom, arrows move along."
    data-tape
    onkeydown={keys}
    use:wheel
  >
    <rect
      x="2"
      y={TOP}
      width={width - 4}
      height="36"
      rx="2"
      class="fill-(--tape) stroke-(--manila-edge)"
      stroke-width="1.2"
    />
    <TapeStretches {segment} {seen} {x} {width} top={TOP} />
    {#each free as f (f.fromHost)}
      {@const [left, right] = clear(
        [Math.max(x(f.fromHost - 0.5), 4), Math.min(x(f.toHost + 0.5), width - 4)],
        patterned,
      )}
      {#if right - left > 74}<text
          x={(left + right) / 2}
          y={TOP + 29}
          text-anchor="middle"
          class="fill-(--tape-ink) stroke-(--tape) font-sans text-[12px] [paint-order:stroke]"
          stroke-width="5">{f.count} free</text
        >{/if}
    {/each}
    <path d={ticks} class="stroke-(--tape-ink)" stroke-width=".7" />
    <path d={notches} class="stroke-(--tape-ink)" stroke-width="1.6" />
    {#each figures as f (f)}
      <path d="M{x(f)} {TOP}v13" class="stroke-(--tape-ink)" stroke-width="1.3" />
      <text x={x(f)} y={TOP - 6} text-anchor="middle" class="fill-(--tape-ink)">{figure(f)}</text>
    {/each}
    {#if hovered !== null && hovered >= seen.from && hovered <= seen.to}
      <path d="M{x(hovered)} {TOP}V{TOP + 40}" stroke="var(--color-accent)" stroke-width="2" />
    {/if}
    <rect
      x="2"
      y={TOP - 18}
      width={width - 4}
      height="54"
      fill="transparent"
      role="presentation"
      class={hoveredFree && plant ? 'cursor-pointer' : 'cursor-grab'}
      onpointerdown={(e) => {
        grabbed = { x: e.offsetX, from: seen.from, moved: false };
        e.currentTarget.setPointerCapture(e.pointerId);
      }}
      onpointermove={(e) => {
        hovered = hostAt(e.offsetX);
        if (!grabbed || Math.abs(e.offsetX - grabbed.x) < 5) return;
        grabbed.moved = true;
        view = pan(
          { from: grabbed.from, to: grabbed.from + span - 1 },
          ((grabbed.x - e.offsetX) / (width - 12)) * span,
          last,
        );
      }}
      onpointerleave={() => (hovered = null)}
      onpointerup={letGo}
    />
    {#each tags as t (t.look + t.host)}
      {@const y = TOP + 58 + t.row * ROW}
      <path
        d="M{t.x} {TOP + 36}C{t.x} {TOP + 48} {t.drop} {TOP + 42} {t.drop} {TOP + 56}V{y + (t.row ? 4 : 0)}"
        stroke={look(t).stroke}
        stroke-width={t.count > 1 ? 3.4 : 1.7}
      />
      {#if t.frayed}<path
          d="M{t.x - 5} {TOP + 37}l5 7l5-7M{t.x} {TOP + 36}v10"
          stroke="var(--color-error)"
          stroke-width="1.7"
        />{/if}
    {/each}
    {#each tags as t (t.look + t.host)}
      {@const y = TOP + 58 + t.row * ROW}
      {@const label =
        t.count > 1
          ? `${t.count} tags from ${figure(t.host)} to ${figure(t.upTo)}`
          : `${t.label}, host ${figure(t.host)}`}
      <a
        href={t.id > 0 && t.count === 1 ? at(siteId, 'plan', t.id) : undefined}
        role={t.count > 1 ? 'button' : undefined}
        tabindex={t.id > 0 || t.count > 1 ? 0 : undefined}
        class={t.id > 0 || t.count > 1 ? 'cursor-pointer' : ''}
        aria-label={label + (t.frayed ? ', in conflict' : '')}
        onclick={(e) => (e.preventDefault(), open(t))}
        onkeydown={(e) => e.key === 'Enter' && (e.preventDefault(), open(t))}
      >
        {#if t.count > 1}<path
            d="M{t.left + 11} {y - 3}H{t.left + t.width - 5}L{t.left + t.width + 3} {y + 5}V{y + 27}"
            stroke={look(t).stroke}
            stroke-width="1.2"
          />{/if}
        <path
          d="M{t.left + 8} {y}H{t.left + t.width - 8}L{t.left + t.width} {y + 8}V{y + 31}H{t.left}V{y + 8}Z"
          fill={look(t).fill}
          stroke={look(t).stroke}
          stroke-width={t.id > 0 && t.id === chosen ? 2.6 : 1.5}
          stroke-dasharray={t.look === 'here' ? '5 3' : undefined}
        />
        <circle
          cx={t.row ? t.drop - 5 : t.drop}
          cy={y + (t.row ? 8 : 6)}
          r="2.4"
          fill="var(--color-base-100)"
          stroke={look(t).stroke}
        />
        <text
          x={t.left + t.width / 2}
          y={y + 24}
          text-anchor="middle"
          fill="currentColor"
          class="font-sans text-[13.5px] {t.look === 'partner' ? '' : 'font-semibold'}">{t.label}</text
        >
      </a>
    {/each}
  </svg>
  <div class="no-print flex flex-wrap items-center gap-x-1 gap-y-1 text-sm">
    <button class="btn btn-ghost btn-sm" onclick={() => closer(0.5)} disabled={span <= 8}
      ><Plus size={16} aria-hidden="true" />Closer</button
    >
    <button class="btn btn-ghost btn-sm" onclick={() => closer(2)} disabled={span > last}
      ><Minus size={16} aria-hidden="true" />Wider</button
    >
    {#if view && span <= last}<button class="btn btn-ghost btn-sm" onclick={() => (view = null)}
        >Whole tape</button
      >{/if}
    <p class="quiet ml-1" aria-live="polite">
      {#if hovered !== null}
        {figure(hovered)}{hoveredFree ? (plant ? ' is free: click to plan there' : ' is free') : ''}
      {:else if tape.free[0] && plant}
        Room:
        {#each tape.free.slice(0, 3) as f (f.fromHost)}
          <button class="mx-1 link font-mono" onclick={() => plant(f.fromHost)}
            >{figure(f.fromHost)}{f.toHost > f.fromHost ? '–' + figure(f.toHost) : ''}</button
          >
        {/each}
      {/if}
    </p>
  </div>
  {#if tape.nextPrefix}<p class="mt-1 text-sm">
      Being renumbered to <span class="font-mono">{tape.nextPrefix}</span>{tape.elsewhere.length
        ? `; ${tape.elsewhere.length} stand in the other network now`
        : ''}.
      <a class="link" href={at(siteId, 'plan', 'renumber')}>Go on with it</a>
    </p>{/if}
</div>
