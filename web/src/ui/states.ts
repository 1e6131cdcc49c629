import type { Schemas } from '../api/client';

type Line = Pick<Schemas['EndpointLine'], 'station' | 'status'>;

const WORDS: Record<string, Record<string, string>> = {
  PLAN: { PENDING: 'to plan', ACTIVE: 'to plan', FAILED: 'in conflict' },
  REGISTER: { PENDING: 'to register', ACTIVE: 'being registered', FAILED: 'entry is wrong' },
  ONBOARD: { PENDING: 'to set up', ACTIVE: 'being set up', FAILED: 'a step failed' },
  CONFIRM: { PENDING: 'to prove', ACTIVE: 'partly proved', FAILED: 'a check failed' },
  HANDOVER: { PASSED: 'to hand over', ACTIVE: 'proved, something is open' },
  DONE: { PASSED: 'handed over' },
};

/** The state of an endpoint in a word, beside its knot. */
export const stateWord = (e: Line) => WORDS[e.station]?.[e.status] ?? WORDS[e.station]?.PENDING ?? '';

/** What failed comes first, then what is under way, then what waits; what is proved last. */
const RANK = ['FAILED', 'ACTIVE', 'PENDING', 'PASSED', 'SKIPPED'];
export const urgency = (e: Line) =>
  RANK.indexOf(e.status) + (e.station === 'DONE' || e.station === 'HANDOVER' ? 10 : 0);
