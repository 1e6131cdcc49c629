import type { Schemas } from '../../api/client';

export type RegistryLine = Schemas['RegistryLine'];
type Knot = Schemas['StationView']['status'];

const WORDS: Record<RegistryLine['state'], string> = {
  TO_REGISTER: 'to register',
  SUBMITTED: 'handed in',
  IN_FORCE: 'in force',
  EXPIRING: 'ends soon',
  ENDED: 'run out',
};
const KNOTS: Record<RegistryLine['state'], Knot> = {
  TO_REGISTER: 'PENDING',
  SUBMITTED: 'ACTIVE',
  IN_FORCE: 'PASSED',
  EXPIRING: 'ACTIVE',
  ENDED: 'FAILED',
};

/** How an entry stands, in a few words. */
export function stateWords(line: RegistryLine): string {
  if (line.endedAt) return 'taken out';
  if (line.stale.length && line.id) return 'holds old facts';
  return line.restartPending ? 'stands there, restart pending' : WORDS[line.state];
}

/** The knot of an entry: an old fact or a passed end frays it. */
export function stateKnot(line: RegistryLine): Knot {
  if (line.endedAt) return 'SKIPPED';
  return line.stale.length && line.id ? 'FAILED' : KNOTS[line.state];
}

/** What people call a fact, in the middle of a sentence. */
export const FACTS: Record<Schemas['Rules']['facts'][number], string> = {
  MAC: 'MAC',
  SERIAL: 'serial',
  MODEL: 'model',
  NAME: 'name',
  ADDRESS: 'address',
  ISSUED: 'what was issued',
};

/** A list as it is typed: one a line or parted by commas. */
export const listed = (text: string) =>
  text
    .split(/[\n,;]+/)
    .map((t) => t.trim())
    .filter(Boolean);

/** An entry that a registry does not ask for, before the server has said what it would hold. */
export const blank = (r: Schemas['RegistryView'], unit: Schemas['EndpointLine']): RegistryLine => ({
  id: null,
  registryId: r.id,
  registry: r.name,
  type: r.type,
  endpointId: unit.id,
  endpoint: unit.name,
  state: 'TO_REGISTER',
  restartPending: false,
  next: '',
  entry: {
    name: '',
    mac: unit.mac as string,
    address: unit.address as string,
    serial: unit.serial,
    model: '',
    owner: '',
    sharedWith: [],
  },
  stale: [],
  objections: [],
  issued: '',
  issuedUsed: '',
  askedAt: null,
  enteredAt: null,
  endsAt: null,
  endsWords: '',
  endedAt: null,
  version: 0,
});
