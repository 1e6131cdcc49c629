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
const ROW_COST = 26;
const NARROWEST = 8;

type Bunch<P extends Pin> = P & { upTo: number; count: number };

/** Hangs each pin where it strays least from below its host; a lower row costs a little, to keep cords short. */
export function hang<P extends Pin>(
  pins: Bunch<P>[],
  xOf: (host: number) => number,
  width: number,
  rows: number,
): (Hung & P)[] {
  const ends = Array.from({ length: rows }, () => -GAP);
  return pins.map((pin) => {
    const x = xOf((pin.host + pin.upTo) / 2);
    const tagWidth = pin.label.length * CHARACTER + PADDING;
    const ideal = Math.max(2, Math.min(width - tagWidth - 2, x - tagWidth / 2));
    const places = ends.map((end, row) => {
      const left = Math.max(ideal, end + GAP);
      const off = left + tagWidth > width ? 10_000 + end : 0;
      return { row, left, cost: left - ideal + row * ROW_COST + off };
    });
    const best = places.reduce((a, b) => (b.cost < a.cost ? b : a));
    const left = Math.min(best.left, width - tagWidth - 2);
    ends[best.row] = left + tagWidth;
    return { ...pin, x, left, width: tagWidth, row: best.row };
  });
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
