import type { QueryClient } from '@tanstack/svelte-query';
import { createStore, del, entries, set } from 'idb-keyval';
import { serverClock } from '../ui/now.svelte';
import { isOld } from './answers.svelte';
import { api, type Schemas } from './client';

type Step = Schemas['StepView'];
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
    | { what: 'label'; label: Label; was: Label };
  /** It waits for the network; somebody else did the same; the server does not take it; it was taken and does not hold. */
  state: 'waits' | 'clash' | 'refused' | 'look';
  says: string;
  theirs?: string;
  /** Whether hers counts though somebody else did the same. */
  insists?: boolean;
};
export type Did = Pick<Unsent, 'siteId' | 'endpointId' | 'endpoint' | 'did'>;

const STORE = createStore('knot-outbox', 'unsent');
const done = (s: Pick<Step, 'status'>) => s.status === 'PASSED' || s.status === 'SKIPPED';
const sameLabel = (a: Label, b: Label) => a.mac === b.mac && a.serial === b.serial && a.model === b.model;

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
      const outcome = await this.#sendOne(u);
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

  async #sendOne(u: Unsent): Promise<Outcome> {
    try {
      return u.did.what === 'step' ? await sendStep(u, u.did) : await sendLabel(u, u.did);
    } catch (e) {
      if (e instanceof TypeError || e instanceof DOMException) return 'stop';
      throw e;
    }
  }
}

export const outbox = new Outbox();

/** A runbook with what is not sent yet in it; whether it holds is judged when it is sent. */
export function withUnsent(book: Schemas['RunbookView'], unsent: Unsent[]): Schemas['RunbookView'] {
  const waits = unsent.filter((u) => u.state === 'waits');
  if (!waits.length) return book;
  const steps = book.steps.map((s) => ({ ...s }));
  for (const { did, at, person } of waits) {
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
  return { ...book, steps, current: steps.find((s) => !done(s))?.key ?? book.current };
}

/** An endpoint with the label that was read and is not sent yet. */
export function withUnsentLabel<T extends { data: Schemas['EndpointView'] }>(
  endpoint: T,
  unsent: Unsent[],
): T {
  const read = unsent.map((u) => u.did).findLast((d) => d.what === 'label');
  return read ? { ...endpoint, data: { ...endpoint.data, ...read.label } } : endpoint;
}
