import { isOld } from './answers.svelte';
import { api, type Schemas } from './client';

type Step = Schemas['StepView'];
type Book = Schemas['RunbookView'];
type Figures = Record<string, string>;
type Label = { mac: string; serial: string; model: string };

/** What somebody did while the server could not be reached. */
export type Unsent = {
  id: number;
  person: string;
  siteId: number;
  endpointId: number;
  endpoint: string;
  /** When it was done, by the server's clock. */
  at: string;
  did:
    | {
        what: 'step';
        key: string;
        title: string;
        action: Schemas['StepRequest']['action'];
        evidence: Record<string, string>;
        reason: string;
      }
    | { what: 'label'; label: Label; was: Label }
    | {
        what: 'facts';
        title: string;
        facts: Record<string, string>;
        was: Record<string, string>;
        says: string;
      }
    | { what: 'opening'; key: string; title: string; body: Schemas['OpeningRequest']; was: string }
    | { what: 'look'; title: string; says: string; body: Schemas['ObservationRequest'] }
    | {
        what: 'sheet';
        key: string;
        title: string;
        figures: Figures;
        was: Figures;
        /** How each figure is called, of a row without its number, and each choice: `at=OUTSIDE`. */
        names: Record<string, string>;
      };
  /** It waits for the network; somebody else did the same; the server does not take it; it was taken and does not hold. */
  state: 'waits' | 'clash' | 'refused' | 'look';
  says: string;
  theirs?: string;
  /** Whether hers counts though somebody else did the same. */
  insists?: boolean;
};
export type Did = Pick<Unsent, 'siteId' | 'endpointId' | 'endpoint' | 'did'>;

export const done = (s: Pick<Step, 'status'>) => s.status === 'PASSED' || s.status === 'SKIPPED';
const sameLabel = (a: Label, b: Label) => a.mac === b.mac && a.serial === b.serial && a.model === b.model;

const filledIn = (figures: Figures) => Object.entries(figures).filter(([, said]) => said);
const sameFigures = (a: Figures, b: Figures) =>
  filledIn(a).length === filledIn(b).length && filledIn(a).every(([key, said]) => b[key] === said);

/** What became of one: it was sent, it stays for somebody to settle, or nothing can be sent now. */
type Outcome = 'sent' | 'stop' | Pick<Unsent, 'state' | 'says' | 'theirs'>;

type Answer<T> = { data?: T; error?: unknown; response: Response };

/** Why nothing came of a request, or null when something did. */
function failed(answer: Answer<unknown>): Outcome | null {
  const { status, ok } = answer.response;
  if (isOld(answer.response) || status === 401 || status === 408 || status === 429 || status > 500)
    return 'stop';
  const body = (answer.error ?? {}) as { detail?: string; errors?: { message: string }[] };
  return ok
    ? null
    : { state: 'refused', says: body.errors?.[0]?.message ?? body.detail ?? 'It was not taken.' };
}

/** What is read of what somebody entered, in one line. */
export const words = (evidence: Record<string, string>) => Object.values(evidence).filter(Boolean).join(', ');

/** Whether a step stands just as it was done here: left out for this reason, or done with this. */
const isThis = (now: Step, did: Extract<Unsent['did'], { what: 'step' }>) =>
  did.action === 'OVERRIDE'
    ? now.status === 'SKIPPED' && now.reason === did.reason.trim()
    : now.status === 'PASSED' && words(now.evidence) === words(did.evidence);

async function sendStep(u: Unsent, did: Extract<Unsent['did'], { what: 'step' }>): Promise<Outcome> {
  const path = { id: u.endpointId };
  for (let tries = 0; tries < 5; tries++) {
    const fresh = await api.GET('/api/endpoints/{id}/runbook', { params: { path } });
    const none = failed(fresh);
    if (none || !fresh.data) return none ?? 'stop';
    const now = fresh.data.steps.find((s) => s.key === did.key);
    if (!now) return { state: 'refused', says: 'Its runbook no longer has this step.' };
    if (did.action === 'START' && (now.startedAt || done(now))) return 'sent';
    const said = now.status === 'SKIPPED' ? `left out, ${now.reason}` : words(now.evidence);
    const theirs = done(now) ? `${now.by}${said ? ': ' + said : ''}` : '';
    // The answer to it may have been lost on the way.
    if (theirs && now.by === u.person && isThis(now, did)) return 'sent';
    if (theirs && !u.insists) return { state: 'clash', says: '', theirs };
    const send = (ifMatch: string, body: Schemas['StepRequest']) =>
      api.PUT('/api/endpoints/{id}/runbook/steps/{key}', {
        params: { path: { ...path, key: did.key }, header: { 'If-Match': ifMatch } },
        body,
      });
    const { action, evidence, reason } = did;
    let etag = fresh.response.headers.get('ETag') ?? '';
    if (theirs) etag = (await send(etag, { action: 'REOPEN' })).response.headers.get('ETag') ?? etag;
    const answer = await send(etag, { action, evidence, reason, at: u.at });
    if (answer.response.status === 412) continue;
    const refused = failed(answer);
    const judged = answer.data?.steps.find((s) => s.key === did.key);
    if (refused || !judged) return refused ?? 'stop';
    return judged.status === 'FAILED'
      ? { state: 'look', says: judged.findings.map((f) => f.message).join(' ') }
      : 'sent';
  }
  return 'stop';
}

async function sendLabel(u: Unsent, did: Extract<Unsent['did'], { what: 'label' }>): Promise<Outcome> {
  const path = { id: u.endpointId };
  const fresh = await api.GET('/api/endpoints/{id}', { params: { path } });
  const none = failed(fresh);
  if (none || !fresh.data) return none ?? 'stop';
  const { serial, model } = fresh.data;
  const now = { mac: fresh.data.mac ?? '', serial, model };
  if (sameLabel(now, did.label)) return 'sent';
  if (!sameLabel(now, did.was) && !u.insists) return { state: 'clash', says: '', theirs: words(now) };
  const answer = await api.PATCH('/api/endpoints/{id}', {
    params: { path, header: { 'If-Match': fresh.response.headers.get('ETag') ?? '' } },
    body: did.label,
  });
  if (answer.response.status === 412) return 'stop';
  return failed(answer) ?? 'sent';
}

type FactsDid = Extract<Unsent['did'], { what: 'facts' }>;
type OpeningDid = Extract<Unsent['did'], { what: 'opening' }>;

/** What is said of a fact now: of a question its answer, as long as somebody gave one. */
const factNow = (book: Book, key: string) => {
  const question = book.questions.find((q) => q.key === key);
  return question ? (question.given ? question.answer : '') : (book.facts[key] ?? '');
};
const labelOf = (book: Book, key: string, value: string) =>
  book.questions.find((q) => q.key === key)?.options.find((o) => o.value === value)?.label ?? value;

/** Facts as they are said, with what stood before, for whoever is asked which of two counts. */
export const factsDid = (book: Book, facts: Record<string, string>): FactsDid => ({
  what: 'facts',
  title: Object.keys(facts)
    .map((key) => book.questions.find((q) => q.key === key)?.ask ?? key)
    .join(', '),
  facts: { ...facts },
  was: Object.fromEntries(Object.keys(facts).map((key) => [key, factNow(book, key)])),
  says: Object.entries(facts)
    .map(([key, value]) => labelOf(book, key, value))
    .join(', '),
});

/** How an opening stands, whatever the day: one that was typed here is not read yet. */
const standing = (o: Schemas['OpeningView'] | undefined) =>
  !o ? '' : o.closed ? ['closed', o.note].filter(Boolean).join(', ') : o.owner || 'stands open';
const inWords = (o: Schemas['OpeningView'] | undefined) =>
  o?.owner && !o.closed ? `${o.owner} closes it by ${o.ends}` : standing(o);

/** An opening as it is said to stand; one that nobody knew before has its name with it. */
export function openingDid(book: Book, key: string, body: Schemas['OpeningRequest']): OpeningDid {
  const known = book.openings.find((o) => o.key === key);
  return {
    what: 'opening',
    key,
    title: known?.title ?? body.title ?? '',
    body: { ...body },
    was: standing(known),
  };
}

/** What an opening is said to be, in words. */
export const openingSays = ({ body }: OpeningDid) =>
  body.closed ? ['closed', body.note].filter(Boolean).join(', ') : `${body.owner} closes it by ${body.ends}`;

/** Whether it is already said so, of whom and by which day. */
const isSaid = (o: Schemas['OpeningView'], { body }: OpeningDid) =>
  body.closed
    ? o.closed && (body.note ?? o.note) === o.note
    : isTheirs(o, body) && o.ends === (body.ends ?? null);
const isTheirs = (o: Schemas['OpeningView'], body: OpeningDid['body']) =>
  !body.closed && !o.closed && o.owner === body.owner?.trim();

/** Sends from the version that stands, as often as somebody else is quicker. */
async function fromFresh(
  u: Unsent,
  look: (book: Book) => Outcome | null,
  send: (book: Book, ifMatch: string) => Promise<Answer<unknown>>,
): Promise<Outcome> {
  for (let tries = 0; tries < 5; tries++) {
    const fresh = await api.GET('/api/endpoints/{id}/runbook', { params: { path: { id: u.endpointId } } });
    const none = failed(fresh);
    if (none || !fresh.data) return none ?? 'stop';
    const settled = look(fresh.data);
    if (settled) return settled;
    const answer = await send(fresh.data, fresh.response.headers.get('ETag') ?? '');
    if (answer.response.status !== 412) return failed(answer) ?? 'sent';
  }
  return 'stop';
}

const sendFacts = (u: Unsent, did: FactsDid) =>
  fromFresh(
    u,
    (book) => {
      const now = Object.keys(did.facts).map((key) => [key, factNow(book, key)] as const);
      if (now.every(([key, value]) => value === did.facts[key])) return 'sent';
      const theirs = now.filter(([key, value]) => value !== did.was[key] && value !== did.facts[key]);
      return theirs.length && !u.insists
        ? {
            state: 'clash',
            says: '',
            theirs: theirs.map(([key, value]) => labelOf(book, key, value) || 'taken back').join(', '),
          }
        : null;
    },
    (_, ifMatch) =>
      api.PUT('/api/endpoints/{id}/runbook/facts', {
        params: { path: { id: u.endpointId }, header: { 'If-Match': ifMatch } },
        body: { facts: did.facts },
      }),
  );

function sendOpening(u: Unsent, did: OpeningDid) {
  const found = !did.was;
  return fromFresh(
    u,
    (book) => {
      const now = book.openings.find((o) => (found ? o.title === did.title : o.key === did.key));
      if (now && isSaid(now, did)) return 'sent';
      // The same person by another day is no clash: it may be what was sent from here, with its answer lost.
      const other = standing(now) !== did.was && !(now && isTheirs(now, did.body));
      return other && !u.insists ? { state: 'clash', says: '', theirs: inWords(now) } : null;
    },
    (book, ifMatch) => {
      const there = book.openings.find((o) => found && o.title === did.title);
      // Somebody else may have found another one meanwhile, under the same number.
      const taken = found && !there && book.openings.some((o) => o.key === did.key);
      const key = taken ? `found-${book.openings.length + 1}` : (there?.key ?? did.key);
      return api.PUT('/api/endpoints/{id}/runbook/openings/{key}', {
        params: {
          path: { id: u.endpointId, key },
          header: { 'If-Match': ifMatch },
        },
        body: did.body,
      });
    },
  );
}

/** A look counts from when it was made, for what it rested on then; of two at the same check the later one counts. */
async function sendLook(u: Unsent, { body }: Extract<Unsent['did'], { what: 'look' }>): Promise<Outcome> {
  const answer = await api.POST('/api/endpoints/{id}/observations', {
    params: { path: { id: u.endpointId } },
    body: { ...body, at: u.at },
  });
  return failed(answer) ?? 'sent';
}

type SheetDid = Extract<Unsent['did'], { what: 'sheet' }>;

/** What was keyed in, against what stood there, each figure and choice with its name. */
export const sheetSays = ({ was, names }: SheetDid, figures: Figures) =>
  [...new Set([...Object.keys(figures), ...Object.keys(was)])]
    .filter((key) => (figures[key] ?? '') !== (was[key] ?? ''))
    .map((key) => {
      const field = key.replace(/\/\d+\//, '/');
      const said = figures[key] ?? '';
      return `${names[field] ?? key}: ${names[`${field}=${said}`] ?? (said || 'empty')}`;
    })
    .join(', ');

/** Figures of a worksheet, made from those that stood there. */
async function sendSheet(u: Unsent, did: SheetDid): Promise<Outcome> {
  const path = { id: u.endpointId };
  for (let tries = 0; tries < 5; tries++) {
    const fresh = await api.GET('/api/endpoints/{id}/worksheets', { params: { path } });
    const none = failed(fresh);
    if (none || !fresh.data) return none ?? 'stop';
    const now = fresh.data.find((f) => f.sheet === did.key);
    const figures = now?.figures ?? {};
    if (sameFigures(figures, did.figures)) return 'sent';
    if (!sameFigures(figures, did.was) && !u.insists)
      return {
        state: 'clash',
        says: '',
        theirs: [now?.by, sheetSays(did, figures)].filter(Boolean).join('. '),
      };
    const answer = await api.PUT('/api/endpoints/{id}/worksheets/{key}', {
      params: { path: { ...path, key: did.key }, header: { 'If-Match': `"${now?.version ?? 0}"` } },
      body: { figures: did.figures },
    });
    if (answer.response.status !== 412) return failed(answer) ?? 'sent';
  }
  return 'stop';
}

/** Sends one of them. */
export async function sendOne(u: Unsent): Promise<Outcome> {
  try {
    switch (u.did.what) {
      case 'step':
        return await sendStep(u, u.did);
      case 'label':
        return await sendLabel(u, u.did);
      case 'facts':
        return await sendFacts(u, u.did);
      case 'opening':
        return await sendOpening(u, u.did);
      case 'look':
        return await sendLook(u, u.did);
      case 'sheet':
        return await sendSheet(u, u.did);
    }
  } catch (e) {
    if (e instanceof TypeError || e instanceof DOMException) return 'stop';
    throw e;
  }
}
