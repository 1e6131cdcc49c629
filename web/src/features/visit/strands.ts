import type { Schemas } from '../../api/client';

type Turn = Schemas['TurnView'];

/** A turn where it is drawn: how far along, how wide, and in which lane what runs by itself hangs. */
export interface Drawn {
  turn: Turn;
  x: number;
  width: number;
  end: number;
  lane: number;
}

/** How long somebody stays in one place. */
export interface Stay {
  place: string;
  x: number;
  width: number;
}

/** A strand of one pair of hands, with so many lanes of cords below it. */
export interface Strand {
  name: string;
  turns: Drawn[];
  stays: Stay[];
  lanes: number;
}

/** Turns one after another at the same place are one stay there. */
function stays(turns: Drawn[]): Stay[] {
  const found: Stay[] = [];
  for (const { turn, x, width } of turns) {
    const last = found.at(-1);
    if (last?.place === turn.place) last.width = x + width - last.x;
    else {
      if (last) last.width = Math.max(0, Math.min(last.width, x - last.x));
      found.push({ place: turn.place, x, width });
    }
  }
  return found.filter((s) => s.place);
}

/** Lays the turns of each person along the hours; cords that run at the same time hang in lanes of their own. */
export function strands(plan: Schemas['PlanOfVisit'], people: string[], width: number): Strand[] {
  const from = Date.parse(plan.from);
  const span = Math.max(60_000, Date.parse(plan.finish) - from);
  const x = (iso: string) => ((Date.parse(iso) - from) / span) * width;
  return people.map((name, who) => {
    const ends: number[] = [];
    const turns = plan.turns
      .filter((t) => t.who === who)
      .map((turn) => {
        const begin = x(turn.until);
        const end = x(turn.done);
        let lane = -1;
        if (end > begin) {
          lane = ends.findIndex((e) => e <= begin);
          if (lane < 0) lane = ends.length;
          ends[lane] = end;
        }
        return { turn, x: x(turn.from), width: begin - x(turn.from), end, lane };
      });
    return { name, turns, stays: stays(turns), lanes: ends.length };
  });
}

/** Hours and parts of hours to be written along the strands: never closer than some 70 px. */
export function marks(plan: Schemas['PlanOfVisit'], width: number): { x: number; at: string }[] {
  const from = Date.parse(plan.from);
  const to = Date.parse(plan.finish);
  const step = [5, 10, 15, 30, 60, 120, 240].find((m) => (width * m * 60_000) / (to - from) > 70) ?? 480;
  const found = [];
  for (let t = Math.ceil(from / (step * 60_000)) * step * 60_000; t <= to; t += step * 60_000)
    found.push({ x: ((t - from) / (to - from)) * width, at: new Date(t).toISOString() });
  return found;
}
