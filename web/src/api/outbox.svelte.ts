import type { QueryClient } from '@tanstack/svelte-query';
import { createStore, del, entries, set } from 'idb-keyval';
import { serverClock } from '../ui/now.svelte';
import type { Schemas } from './client';
import { done, sendOne, type Did, type Unsent } from './sending';

export { factsDid, openingDid, openingSays, sheetSays, words, type Did, type Unsent } from './sending';

const STORE = createStore('knot-outbox', 'unsent');

/** What was done without network: kept on this device, sent in order when the server can be reached, and never thrown away. */
class Outbox {
  /** All that is kept here, of whomever. */
  #all = $state.raw<Unsent[]>([]);
  #person = $state('');
  #sending = false;

  get mine() {
    return this.#all.filter((u) => u.person === this.#person);
  }

  of(endpointId: number) {
    return this.mine.filter((u) => u.endpointId === endpointId);
  }

  async open(person: string) {
    this.#person = person;
    const kept = await entries<number, Unsent>(STORE);
    this.#all = kept.map(([, u]) => u).sort((a, b) => a.id - b.id);
  }

  /** Keeps what was done at an endpoint. */
  note = (e: Pick<Schemas['EndpointView'], 'siteId' | 'id' | 'name'>, did: Unsent['did']) =>
    this.add({ siteId: e.siteId, endpointId: e.id, endpoint: e.name, did });

  async add(what: Did) {
    const at = new Date(serverClock.millis).toISOString();
    const id = Math.max(Date.now(), (this.#all.at(-1)?.id ?? 0) + 1);
    const one: Unsent = { ...what, id, at, person: this.#person, state: 'waits', says: '' };
    await set(id, $state.snapshot(one), STORE);
    this.#all = [...this.#all, one];
  }

  async #change(one: Unsent) {
    await set(one.id, one, STORE);
    this.#all = this.#all.map((u) => (u.id === one.id ? one : u));
  }

  /** Lets go of one: it was sent, or whoever did it does not want it any more. */
  async drop(id: number) {
    await del(id, STORE);
    this.#all = this.#all.filter((u) => u.id !== id);
  }

  /** Sends one once more; whether it counts whatever somebody else has done. */
  again = (u: Unsent, insists: boolean) => this.#change({ ...u, state: 'waits', says: '', insists });

  /** Sends what waits, each endpoint's in the order in which it was done; behind one that is to be settled the rest waits. */
  async send(client: QueryClient) {
    if (this.#sending || !this.mine.some((u) => u.state === 'waits')) return;
    this.#sending = true;
    try {
      // Of the pages of a browser one sends.
      if ('locks' in navigator) await navigator.locks.request('knot-outbox', () => this.#sendAll(client));
      else await this.#sendAll(client);
    } finally {
      this.#sending = false;
    }
  }

  async #sendAll(client: QueryClient) {
    await this.open(this.#person);
    const held: number[] = [];
    for (const u of this.mine) {
      if (u.state === 'clash' || u.state === 'refused') held.push(u.endpointId);
      if (u.state !== 'waits' || held.includes(u.endpointId)) continue;
      const outcome = await sendOne(u);
      if (outcome === 'stop') break;
      if (outcome === 'sent') await this.drop(u.id);
      else {
        await this.#change({ ...u, ...outcome });
        if (outcome.state !== 'look') held.push(u.endpointId);
      }
      for (const queryKey of [['endpoint', u.endpointId], ['site', u.siteId], ['running']])
        void client.invalidateQueries({ queryKey });
    }
  }
}

export const outbox = new Outbox();

/** Which steps apply is core's to say. */
const LATER = 'Not sent yet; which steps this changes shows once it is.';

/** What stands open, with what was said of one and is not sent yet; whether it is overdue, the server knows. */
function withOpening(
  openings: Schemas['OpeningView'][],
  { key, title, body, was }: Extract<Unsent['did'], { what: 'opening' }>,
): Schemas['OpeningView'][] {
  const said = {
    owner: body.owner ?? '',
    ends: body.ends ?? null,
    closed: !!body.closed,
    overdue: false,
    note: body.note ?? '',
  };
  return was
    ? openings.map((o) => (o.key === key ? { ...o, ...said } : o))
    : [...openings, { key, title, closes: '', secret: false, ...said }];
}

/** A runbook with what is not sent yet in it; whether it holds is judged when it is sent. */
export function withUnsent(book: Schemas['RunbookView'], unsent: Unsent[]): Schemas['RunbookView'] {
  const waits = unsent.filter((u) => u.state === 'waits');
  if (!waits.length) return book;
  const steps = book.steps.map((s) => ({ ...s }));
  let { questions, openings, facts } = book;
  for (const { did, at, person } of waits) {
    if (did.what === 'facts') {
      facts = { ...facts, ...did.facts };
      questions = questions.map((q) =>
        q.key in did.facts ? { ...q, answer: did.facts[q.key] ?? q.answer, given: true, because: LATER } : q,
      );
    } else if (did.what === 'opening') openings = withOpening(openings, did);
    const step = did.what === 'step' && steps.find((s) => s.key === did.key);
    if (!step || did.what !== 'step') continue;
    const { action, evidence, reason } = did;
    if (action === 'START') Object.assign(step, { status: 'ACTIVE', startedAt: at, by: person });
    else
      Object.assign(step, {
        status: action === 'OVERRIDE' ? 'SKIPPED' : 'PASSED',
        ...{ endedAt: at, evidence, reason, findings: [], by: person },
      });
  }
  return {
    ...book,
    steps,
    questions,
    openings,
    facts,
    current: steps.find((s) => !done(s))?.key ?? book.current,
  };
}

/** An endpoint with the label that was read and is not sent yet. */
export function withUnsentLabel<T extends { data: Schemas['EndpointView'] }>(
  endpoint: T,
  unsent: Unsent[],
): T {
  const read = unsent.map((u) => u.did).findLast((d) => d.what === 'label');
  return read ? { ...endpoint, data: { ...endpoint.data, ...read.label } } : endpoint;
}

/** A worksheet with its figures; `waits` when they are not sent yet, and nothing is worked out from them. */
export type FilledHere = Schemas['FilledSheet'] & { waits?: boolean };

/** Worksheets with the figures that are not sent yet. */
export function withUnsentSheets(filled: Schemas['FilledSheet'][], unsent: Unsent[]): FilledHere[] {
  const said = unsent.flatMap(({ did, state }) => (did.what === 'sheet' && state === 'waits' ? [did] : []));
  const all = filled.map((f) => {
    const here = said.findLast((did) => did.key === f.sheet);
    return here ? { ...f, figures: here.figures, holds: false, waits: true } : f;
  });
  const first = said.filter(
    (did, i) =>
      said.findLastIndex((d) => d.key === did.key) === i && !filled.some((f) => f.sheet === did.key),
  );
  return [
    ...all,
    ...first.map(({ key, title, figures }) => ({
      ...{ sheet: key, title, step: '', figures, counted: {}, holds: false, version: 0, by: null, at: null },
      judgement: { results: [], findings: [], pictures: [] },
      waits: true,
    })),
  ];
}

/** A line of checks with what was seen and is not sent yet; whether that holds is judged when it is sent. */
export function withUnsentLooks(
  line: Schemas['VerificationView'],
  unsent: Unsent[],
): Schemas['VerificationView'] {
  const looks = unsent.flatMap(({ did, state, at, person }) =>
    did.what === 'look' && state === 'waits' ? [{ did, at, by: person }] : [],
  );
  return {
    ...line,
    missing: looks.length ? 'What was seen here is not sent yet.' : line.missing,
    checks: line.checks.map((c) => {
      const look = looks.findLast((l) => l.did.body.check === c.check);
      const note = `${look?.did.says}. Not sent yet.`;
      return look ? { ...c, status: 'ACTIVE', note, at: look.at, by: look.by } : c;
    }),
  };
}
