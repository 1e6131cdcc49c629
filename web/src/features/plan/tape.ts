/** Where tags hang below the tape so that none covers another; only drawing, no rule of the job. */
export interface Pin {
  id: number;
  host: number;
  label: string;
}

export interface Hung extends Pin {
  x: number;
  left: number;
  width: number;
  row: number;
}

const CHARACTER = 7.4;
const PADDING = 22;
const GAP = 8;
const ROW_COST = 26;

/** Hangs each pin where it strays least from below its host; a lower row costs a little, to keep cords short. */
export function hang(pins: Pin[], xOf: (host: number) => number, width: number, rows: number): Hung[] {
  const ends = Array.from({ length: rows }, () => -GAP);
  return [...pins]
    .sort((a, b) => a.host - b.host)
    .map((pin) => {
      const x = xOf(pin.host);
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

/** The step between figures on the tape, so that they stand at least so many pixels apart. */
export function tickStep(hosts: number, width: number, apart: number): number {
  for (let step = 1; ; step *= 10)
    for (const factor of [1, 2, 5]) if ((width * step * factor) / hosts >= apart) return step * factor;
}
