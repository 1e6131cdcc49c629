import { describe, expect, it } from 'vitest';
import { marks, strands } from './strands';

const at = (minute: number) => new Date(Date.UTC(2031, 10, 25, 6, minute)).toISOString();
const turn = (who: number, from: number, until: number, done = until) => ({
  unitId: from + 1,
  unit: 'Till',
  place: '',
  title: 'Wire it',
  who,
  from: at(from),
  until: at(until),
  done: at(done),
  slack: 0,
  tight: true,
});
const plan = (...turns: ReturnType<typeof turn>[]) => ({ from: at(0), finish: at(100), turns }) as never;

describe('strands of a visit', () => {
  it('lays turns along the hours of whoever has them', () => {
    const [imke, joost] = strands(
      plan(turn(0, 0, 10), turn(1, 20, 30), turn(0, 50, 60)),
      ['Imke', 'Joost'],
      1000,
    );
    expect(imke?.turns.map((t) => [t.x, t.width])).toEqual([
      [0, 100],
      [500, 100],
    ]);
    expect(joost?.turns.map((t) => t.x)).toEqual([200]);
    expect(imke?.lanes).toBe(0);
  });

  it('makes one stay of turns at the same place, until they go to another', () => {
    const turns = [turn(0, 0, 10), turn(0, 20, 30), turn(0, 40, 50), turn(0, 60, 70)];
    turns.push(turn(0, 69, 80));
    ['Desk', 'Desk', '', 'Desk', 'Yard'].forEach((place, i) => Object.assign(turns[i] ?? {}, { place }));
    const [row] = strands(plan(...turns), ['Imke'], 1000);
    expect(row?.stays).toEqual([
      { place: 'Desk', x: 0, width: 300 },
      { place: 'Desk', x: 600, width: 90 },
      { place: 'Yard', x: 690, width: 110 },
    ]);
  });

  it('hangs what runs at the same time in lanes of its own, and uses a lane again', () => {
    const [row] = strands(plan(turn(0, 0, 10, 70), turn(0, 10, 20, 40), turn(0, 40, 50, 90)), ['Imke'], 1000);
    expect(row?.turns.map((t) => t.lane)).toEqual([0, 1, 1]);
    expect(row?.lanes).toBe(2);
    expect(row?.turns[0]?.end).toBe(700);
  });

  it.each([
    [1000, ['0', '10', '20', '30', '40', '50', '0', '10', '20', '30', '40']],
    [400, ['0', '30', '0', '30']],
    [100, ['0']],
  ])('writes the hours no closer than they can be read, %i px wide', (width, minutes) => {
    expect(marks(plan(), width).map((m) => String(new Date(m.at).getUTCMinutes()))).toEqual(minutes);
  });
});
