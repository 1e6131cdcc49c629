import type { Schemas } from '../../api/client';
import { hourOf, typedMoment } from '../../ui/time';

/** What somebody types of a visit, as text until it is sent. */
export interface Person {
  name: string;
  skills: string;
  from: string;
  until: string;
}

export interface PlaceHours {
  place: string;
  from: string;
  until: string;
}

export interface Short {
  tool: string;
  count: string;
  kind: string;
}

/** Something else that is to be done there; without a number it is another one. */
export interface Task {
  id?: number;
  title: string;
  place: string;
  minutes: string;
  skill: string;
  /** Those of a lower one come before it; it waits for nothing at 0. */
  stage?: number;
}

/** Where a device is set up, and whether all others wait for it. */
export interface Chosen {
  bench: boolean;
  first: boolean;
}

export interface Typed {
  name: string;
  begins: string;
  due: string;
  outlets: string;
  ports: string;
  megabits: string;
  walk: string;
  travel: string;
}

export const nobodyYet = (): Person => ({ name: '', skills: '', from: '', until: '' });

const hour = (at?: string | null) => (at ? hourOf(at) : '');
const text = (value?: number | null) => value?.toString() ?? '';
/** What is no number is refused at its field like one that is too small. */
function number(typed: string): number | undefined {
  if (!typed.trim()) return undefined;
  const value = Number(typed.replace(',', '.'));
  return Number.isNaN(value) ? -1 : value;
}

const words = (typed: string) =>
  typed
    .split(',')
    .map((s) => s.trim())
    .filter(Boolean);

export const typed = (v?: Schemas['VisitView']): Typed => ({
  name: v?.head.name ?? '',
  begins: v ? typedMoment(v.head.begins) : '',
  due: v?.head.due ? typedMoment(v.head.due) : '',
  outlets: text(v?.means.outlets),
  ports: text(v?.means.ports),
  megabits: v?.means.megabits ? String(v.means.megabits) : '',
  walk: text(v?.means.walk ?? 1),
  travel: v?.means.travel ? String(v.means.travel) : '',
});

export const peopleOf = (v?: Schemas['VisitView']): Person[] =>
  v?.people.map((p) => ({
    name: p.name,
    skills: p.skills.join(', '),
    from: hour(p.from),
    until: hour(p.until),
  })) ?? [nobodyYet()];

export const placesOf = (v?: Schemas['VisitView']): PlaceHours[] =>
  v?.means.places.map((p) => ({ place: p.place, from: hour(p.from), until: hour(p.until) })) ?? [];

export const shortOf = (v?: Schemas['VisitView']): Short[] =>
  v?.means.tools.map((t) => ({ tool: t.tool, count: String(t.count), kind: t.kind })) ?? [];

/** Tasks that are not done; of a visit that is over they become others. */
export const tasksOf = (v?: Schemas['VisitView']): Task[] =>
  v?.tasks
    .filter((t) => !t.done)
    .map((t) => ({
      id: v.head.state === 'OVER' ? undefined : t.id,
      title: t.title,
      place: t.place,
      minutes: String(t.minutes),
      skill: t.skill,
      stage: t.stage,
    })) ?? [];

export const chosenOf = (v?: Schemas['VisitView']): [number, Chosen][] =>
  v?.units
    .filter((u) => v.head.state !== 'OVER' || !u.done)
    .map((u) => [u.endpointId, { bench: u.bench, first: u.first }]) ?? [];

/** What is sent. */
export const asked = (
  f: Typed,
  people: Person[],
  places: PlaceHours[],
  tools: Short[],
  tasks: Task[],
  chosen: Iterable<[number, Chosen]>,
): Schemas['VisitPlanRequest'] => ({
  name: f.name,
  begins: f.begins,
  due: f.due || undefined,
  bench: { outlets: number(f.outlets), ports: number(f.ports) },
  megabits: number(f.megabits),
  walk: number(f.walk) ?? 0,
  travel: number(f.travel),
  people: people.map((p) => ({
    name: p.name,
    skills: words(p.skills),
    from: p.from || undefined,
    until: p.until || undefined,
  })),
  places: places.map((p) => ({ ...p })),
  tools: tools.map((t) => ({ tool: t.tool, count: number(t.count) ?? 0, kind: t.kind })),
  tasks: tasks.map((t) => ({ ...t, minutes: number(t.minutes) ?? 0 })),
  units: [...chosen].map(([endpointId, c]) => ({ endpointId, ...c })),
});
