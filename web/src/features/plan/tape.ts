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

/** Hangs each pin in the first row where it fits; later rows are tried when a row is full. */
export function hang(pins: Pin[], xOf: (host: number) => number, width: number, rows: number): Hung[] {
  const ends: number[] = [];
  return [...pins]
    .sort((a, b) => a.host - b.host)
    .map((pin) => {
      const x = xOf(pin.host);
      const tagWidth = pin.label.length * CHARACTER + PADDING;
      const left = Math.max(0, Math.min(width - tagWidth, x - tagWidth / 2));
      let row = ends.findIndex((end) => end + GAP <= left);
      if (row < 0) row = ends.length < rows ? ends.length : ends.indexOf(Math.min(...ends));
      ends[row] = left + tagWidth;
      return { ...pin, x, left, width: tagWidth, row };
    });
}

/** The step between figures on the tape, so that they stand at least so many pixels apart. */
export function tickStep(hosts: number, width: number, apart: number): number {
  for (let step = 1; ; step *= 10)
    for (const factor of [1, 2, 5]) if ((width * step * factor) / hosts >= apart) return step * factor;
}
