import { describe, expect, it } from 'vitest';
import { hang, tickStep } from './tape';

const pin = (id: number, host: number, label = 'Till ' + id) => ({ id, host, label });

describe('hanging tags on the tape', () => {
  it.each([
    ['far apart share a row', [pin(1, 10), pin(2, 200)], [0, 0]],
    ['neighbours go below one another', [pin(1, 51), pin(2, 52)], [0, 1]],
    ['order of the list does not matter', [pin(2, 52), pin(1, 51)], [0, 1]],
  ])('%s', (_, pins, rows) => {
    expect(hang(pins, (h) => h * 3, 800, 3).map((t) => t.row)).toEqual(rows);
  });

  it.each([[1], [7], [12]])('never covers one tag with another, %i in a row', (count) => {
    const tags = hang(
      Array.from({ length: count }, (_, i) => pin(i, 50 + i)),
      (h) => h * 3,
      800,
      4,
    );
    for (const a of tags)
      for (const b of tags)
        if (a.id < b.id && a.row === b.row)
          expect(a.left + a.width <= b.left || b.left + b.width <= a.left).toBe(true);
  });

  it('keeps every tag on the paper', () => {
    for (const tag of hang(
      [pin(1, 0, 'A very long label'), pin(2, 255, 'A very long label')],
      (h) => h * 3,
      765,
      4,
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
