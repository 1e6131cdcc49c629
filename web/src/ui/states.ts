import type { Schemas } from '../api/client';

type Line = Pick<Schemas['EndpointLine'], 'station' | 'knot'>;

const WORDS: Record<string, Record<string, string>> = {
  PLAN: { OPEN: 'to plan', HALF_DRAWN: 'to plan', FRAYED: 'in conflict' },
  REGISTER: { OPEN: 'to register', HALF_DRAWN: 'being registered', FRAYED: 'entry is wrong' },
  ONBOARD: { OPEN: 'to set up', HALF_DRAWN: 'being set up', FRAYED: 'a step failed' },
  CONFIRM: { OPEN: 'to prove', HALF_DRAWN: 'partly proved', FRAYED: 'a check failed' },
  DONE: { TIGHT: 'proved', HALF_DRAWN: 'proved, something is open', FRAYED: 'fails again' },
};

/** The state of an endpoint in a word, beside its knot. */
export const stateWord = (e: Line) => WORDS[e.station]?.[e.knot] ?? WORDS[e.station]?.OPEN ?? '';

/** What failed comes first, then what is under way, then what waits; what is proved last. */
const RANK = ['FRAYED', 'HALF_DRAWN', 'OPEN', 'TIGHT', 'LEFT_OUT'];
export const urgency = (e: Line) => RANK.indexOf(e.knot) + (e.station === 'DONE' ? 10 : 0);
