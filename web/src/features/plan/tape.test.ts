import { describe, expect, it } from 'vitest';
import { clear, gather, hang, inside, pan, tickStep, zoom } from './tape';

const pin = (id: number, host: number, label = 'Till ' + id) => ({ id, host, label });
const single = (id: number, host: number, label?: string) => ({
  ...pin(id, host, label),
  upTo: host,
  count: 1,
});

describe('hanging tags on the tape', () => {
  it.each([
    ['far apart share a row', [single(1, 10), single(2, 200)], [0, 0]],
    ['two neighbours stand side by side', [single(1, 51), single(2, 52)], [0, 0]],
  ])('%s', (_, pins, rows) => {
    expect(hang(pins, (h) => h * 3, 800).map((t) => t.row)).toEqual(rows);
  });

  it.each([
    [1, 880],
    [7, 880],
    [12, 880],
    [12, 358],
    [16, 358],
    [23, 880],
  ])(
    '%i neighbours on %i px: no tag covers another, no cable runs through a tag or over a cable',
    (count, px) => {
      const tags = hang(
        Array.from({ length: count }, (_, i) => single(i, 50 + i, i % 3 ? undefined : 'Goods-in printer')),
        (h) => (h * px) / 256,
        px,
      );
      expect(tags).toHaveLength(count);
      for (const a of tags) {
        expect(a.left).toBeGreaterThanOrEqual(0);
        expect(a.left + a.width).toBeLessThanOrEqual(px);
        for (const b of tags) {
          if (a.id < b.id) expect(a.drop).toBeLessThan(b.drop);
          if (a.id < b.id && a.row === b.row) expect(a.left + a.width).toBeLessThanOrEqual(b.left);
          if (a.row > b.row) expect(a.drop > b.left && a.drop < b.left + b.width).toBe(false);
        }
      }
    },
  );

  it('keeps all on a narrow paper, also when one stands apart from the crowd', () => {
    const tags = hang(
      [
        ...[1, 20, 37, 38, 51, 52, 53].map((h) => single(h, h, 'Nursery label printer')),
        single(140, 140, 'Yard label printer'),
      ],
      (h) => h * 1.4,
      358,
    );
    for (const t of tags) expect(t.left + t.width).toBeLessThanOrEqual(358);
  });

  it.each([
    ['nothing drawn', [], [10, 90]],
    ['its start', [[0, 50]], [50, 90]],
    ['its middle', [[30, 40]], [40, 90]],
    ['all of it', [[0, 100]], [10, 10]],
    [
      'two, one over the other',
      [
        [10, 30],
        [20, 60],
      ],
      [60, 90],
    ],
  ] as [string, [number, number][], [number, number]][])(
    'words find the clear part: %s',
    (_, drawn, part) => {
      const [a, b] = clear([10, 90], drawn);
      expect(b - a).toBe(part[1] - part[0]);
      if (b > a) expect([a, b]).toEqual(part);
    },
  );

  it('keeps every tag on the paper', () => {
    for (const tag of hang(
      [single(1, 0, 'A very long label'), single(2, 255, 'A very long label')],
      (h) => h * 3,
      765,
    )) {
      expect(tag.left).toBeGreaterThanOrEqual(0);
      expect(tag.left + tag.width).toBeLessThanOrEqual(765);
    }
  });

  it.each([
    [256, 880, 40, 20],
    [256, 340, 40, 50],
    [8, 880, 40, 1],
    [65536, 880, 60, 5000],
  ])('%i hosts on %i px need a figure every %i px: step %i', (hosts, width, apart, step) => {
    expect(tickStep(hosts, width, apart)).toBe(step);
  });
});

describe('the lens for crowded stretches', () => {
  const many = Array.from({ length: 5000 }, (_, i) => pin(i, i * 13));
  it('shows few as they are and many as bunches, losing none', () => {
    expect(gather(many.slice(0, 20), { from: 0, to: 65535 }, 24)).toHaveLength(20);
    const bunches = gather(many, { from: 0, to: 65535 }, 24);
    expect(bunches.length).toBeLessThanOrEqual(24);
    expect(bunches.reduce((sum, b) => sum + b.count, 0)).toBe(5000);
    expect(bunches[0]?.label).toBe(bunches[0]?.count + ' here');
    expect(bunches.every((b, i) => i === 0 || b.host > (bunches[i - 1]?.upTo ?? 0))).toBe(true);
  });

  it.each([
    [0, 65535, 5000],
    [13, 26, 2],
    [14, 25, 0],
    [64_987, 70_000, 1],
  ])('from %i to %i stand %i', (from, to, count) => {
    expect(inside(many, { from, to })).toHaveLength(count);
  });

  it.each([
    ['closer, around the finger', { from: 0, to: 255 }, 0.5, 64, { from: 32, to: 159 }],
    ['never closer than eight', { from: 10, to: 17 }, 0.1, 12, { from: 10, to: 17 }],
    ['never wider than the tape', { from: 40, to: 200 }, 4, 100, { from: 0, to: 255 }],
    ['never past the end', { from: 200, to: 255 }, 2, 255, { from: 144, to: 255 }],
  ])('zooms %s', (_, window, factor, at, expected) => {
    expect(zoom(window, factor, at, 255)).toEqual(expected);
  });

  it('works for a /29, and moves along without leaving the tape', () => {
    expect(zoom({ from: 0, to: 7 }, 0.5, 3, 7)).toEqual({ from: 0, to: 7 });
    expect(pan({ from: 0, to: 63 }, -20, 255)).toEqual({ from: 0, to: 63 });
    expect(pan({ from: 0, to: 63 }, 500, 255)).toEqual({ from: 192, to: 255 });
  });
});
