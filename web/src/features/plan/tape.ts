/** Where tags hang below the tape so that none covers another; only drawing, no rule of the job. */
export interface Pin {
  id: number;
  host: number;
  label: string;
}

/** A tag, or a bunch of them where they stand too close to be told apart. */
export interface Hung extends Pin {
  x: number;
  left: number;
  width: number;
  row: number;
  /** Where its cable comes down. */
  drop: number;
  upTo: number;
  count: number;
}

/** The part of the tape that is looked at, in host numbers, both ends included. */
export interface Window {
  from: number;
  to: number;
}

const CHARACTER = 7.4;
const PADDING = 22;
const GAP = 8;
/** How much further right the cable of each lower tag runs, past the edge of the tag above it. */
const STEP = 9;
/** A tag that hangs further than this from its host makes another row worth it. */
const FAR = 90;
const ROW_COST = 20;
const NARROWEST = 8;

type Bunch<P extends Pin> = P & { upTo: number; count: number };
type Block<P extends Pin> = { pins: Bunch<P>[]; widest: number; width: number; ideal: number };

/**
 * Hangs each pin where it strays least from below its host. Crowded ones hang below one another as stairs, each a step further
 * right than the one above, so that no cable runs through a tag or over another cable.
 */
export function hang<P extends Pin>(
  pins: Bunch<P>[],
  xOf: (host: number) => number,
  width: number,
): (Hung & P)[] {
  let best: (Hung & P)[] = [];
  let least = Infinity;
  // First only what is crowded hangs together; where that is too wide, whatever stands side by side.
  for (let attempt = 1; attempt <= 2 * pins.length; attempt++) {
    const rows = attempt <= pins.length ? attempt : attempt - pins.length;
    const hung = place(blocks(pins, xOf, rows, attempt > pins.length), xOf, width);
    const stray = Math.max(...hung.map((t) => Math.abs(t.drop - t.x)));
    const over = Math.max(0, ...hung.map((t) => t.left + t.width - width));
    const cost = over * 1000 + stray + rows * ROW_COST;
    if (cost < least) [best, least] = [hung, cost];
    if (!over && (stray <= FAR || attempt >= pins.length)) break;
  }
  return best;
}

const widthOf = (pin: Pin) => pin.label.length * CHARACTER + PADDING;

/** Neighbours that would run into one another, up to so many, hang together. */
function blocks<P extends Pin>(
  pins: Bunch<P>[],
  xOf: (host: number) => number,
  rows: number,
  any: boolean,
): Block<P>[] {
  const x = (p: Bunch<P>) => xOf((p.host + p.upTo) / 2);
  const together: Bunch<P>[][] = [];
  for (const pin of pins) {
    const last = together.at(-1);
    const before = last?.at(-1);
    if (last && before && last.length < rows && (any || x(pin) - x(before) < widthOf(before) + GAP))
      last.push(pin);
    else together.push([pin]);
  }
  return together.map((members) => {
    const widest = Math.max(...members.map(widthOf));
    const all = widest + STEP * (members.length - 1);
    const middle = members.reduce((sum, p) => sum + x(p), 0) / members.length;
    return { pins: members, widest, width: all, ideal: middle - all / 2 };
  });
}

/** Puts the blocks side by side with the least moving of all (isotonic regression), within the width. */
function place<P extends Pin>(all: Block<P>[], xOf: (host: number) => number, width: number): (Hung & P)[] {
  const runs: { sum: number; count: number }[] = [];
  let before = 0;
  const offsets = all.map((b) => {
    const offset = before;
    before += b.width + GAP;
    return offset;
  });
  all.forEach((b, i) => {
    runs.push({ sum: b.ideal - (offsets[i] ?? 0), count: 1 });
    for (;;) {
      const [a, c] = [runs.at(-2), runs.at(-1)];
      if (!a || !c || a.sum / a.count <= c.sum / c.count) break;
      runs.splice(-2, 2, { sum: a.sum + c.sum, count: a.count + c.count });
    }
  });
  const most = Math.max(2, width - 2 - (before - GAP));
  const lefts = runs.flatMap((r) =>
    Array.from({ length: r.count }, () => Math.max(2, Math.min(most, r.sum / r.count))),
  );
  return all.flatMap((b, i) =>
    b.pins.map((pin, row) => {
      const own = widthOf(pin);
      const right = (lefts[i] ?? 0) + (offsets[i] ?? 0) + b.widest + STEP * row;
      return {
        ...pin,
        x: xOf((pin.host + pin.upTo) / 2),
        left: right - own,
        width: own,
        row,
        drop: row ? right - 4 : right - own / 2,
      };
    }),
  );
}

/** The part of a stretch that nothing is drawn on and that is widest, in the same measure. */
export function clear([from, to]: [number, number], drawn: [number, number][]): [number, number] {
  let best: [number, number] = [from, from];
  let at = from;
  for (const [a, b] of [...drawn].filter(([a, b]) => b > from && a < to).sort((p, q) => p[0] - q[0])) {
    if (a - at > best[1] - best[0]) best = [at, a];
    at = Math.max(at, b);
  }
  return to - at > best[1] - best[0] ? [at, to] : best;
}

/** The pins inside a window; pins are sorted by host. */
export function inside<P extends Pin>(pins: P[], { from, to }: Window): P[] {
  const start = firstFrom(pins, from);
  return pins.slice(start, firstFrom(pins, to + 1));
}

function firstFrom(pins: Pin[], host: number): number {
  let low = 0;
  let high = pins.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((pins[middle]?.host ?? Infinity) < host) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** Each pin by itself while there are few; else one bunch for each stretch that has room for one tag. */
export function gather<P extends Pin>(pins: P[], { from, to }: Window, most: number): Bunch<P>[] {
  if (pins.length <= most) return pins.map((p) => ({ ...p, upTo: p.host, count: 1 }));
  const stretch = (to - from + 1) / most;
  const bunches: Bunch<P>[] = [];
  let last = -1;
  for (const pin of pins) {
    const at = Math.floor((pin.host - from) / stretch);
    const bunch = bunches.at(-1);
    if (at === last && bunch) {
      bunch.count++;
      bunch.upTo = pin.host;
    } else bunches.push({ ...pin, upTo: pin.host, count: 1 });
    last = at;
  }
  return bunches.map((b) => (b.count > 1 ? { ...b, label: b.count + ' here' } : b));
}

/** The window after zooming by a factor, so that what stands under the finger stays there. */
export function zoom(window: Window, factor: number, at: number, last: number): Window {
  const span = Math.min(last + 1, Math.max(NARROWEST, Math.round((window.to - window.from + 1) * factor)));
  const share = (at - window.from) / (window.to - window.from + 1);
  return clamped(Math.round(at - share * span), span, last);
}

/** The window moved along by so many hosts, without leaving the tape. */
export const pan = (window: Window, by: number, last: number): Window =>
  clamped(Math.round(window.from + by), window.to - window.from + 1, last);

function clamped(from: number, span: number, last: number): Window {
  const whole = Math.min(span, last + 1);
  const start = Math.max(0, Math.min(from, last + 1 - whole));
  return { from: start, to: start + whole - 1 };
}

/** The step between figures on the tape, so that they stand at least so many pixels apart. */
export function tickStep(hosts: number, width: number, apart: number): number {
  for (let step = 1; ; step *= 10)
    for (const factor of [1, 2, 5]) if ((width * step * factor) / hosts >= apart) return step * factor;
}
