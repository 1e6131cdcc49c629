import { QueryClient } from '@tanstack/svelte-query';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { disk } from '../test/disk';
import type { Schemas } from './client';
import {
  factsDid,
  openingDid,
  openingSays,
  outbox,
  sheetSays,
  withUnsent,
  withUnsentLabel,
  withUnsentLooks,
  withUnsentSheets,
  type Did,
} from './outbox.svelte';

vi.mock('idb-keyval', () => import('../test/disk'));

type Step = {
  key: string;
  status: string;
  by: string;
  evidence: Record<string, string>;
  findings: { message: string }[];
};
const open = (key: string): Step => ({ key, status: 'PENDING', by: '', evidence: {}, findings: [] });

type Opening = Schemas['OpeningView'];
const opening = (key: string, title: string): Opening => ({
  ...{
    key,
    title,
    closes: '',
    owner: '',
    ends: null,
    closed: false,
    overdue: false,
    secret: false,
    note: '',
  },
});

type Look = Schemas['ObservationRequest'];

/** A server with one runbook, as far as the outbox knows it; it may be out of reach, and lose its answers. */
class Server {
  steps = ['unpack', 'label', 'boot'].map(open);
  version = 1;
  reach = true;
  losesAnswer = false;
  refuses: Record<string, string> = {};
  fails: Record<string, string> = {};
  puts: string[] = [];
  facts: Record<string, string> = {};
  looks: Look[] = [];
  restsOn = 'address 51';
  sheet = { sheet: 'supply', figures: { hold: '0.8' } as Record<string, string>, by: 'Joris', version: 1 };
  openings = [opening('door', 'Its door')];
  label = { mac: '00:00:5E:00:53:01', serial: 'A', model: '' };

  answer = async (request: Request) => {
    if (!this.reach) throw new TypeError('no network');
    const path = new URL(request.url).pathname;
    if (path.includes('/worksheets')) return this.fills(request);
    const json = (body: unknown, status = 200) =>
      new Response(JSON.stringify(body), { status, headers: { ETag: `"${this.version}"` } });
    if (request.method === 'GET') return json(path.endsWith('runbook') ? this.book() : this.label);
    if (path.endsWith('/observations')) return this.sees(await request.json(), json);
    if (request.headers.get('If-Match') !== `"${this.version}"`) return json({}, 412);
    const body = await request.json();
    if (request.method === 'PATCH') {
      this.label = body;
      this.version++;
      return json(this.label);
    }
    const key = path.split('/').at(-1) ?? '';
    if (key === 'facts' || path.includes('/openings/')) {
      if (key === 'facts') Object.assign(this.facts, body.facts);
      else this.say(key, body);
      this.version++;
      if (this.losesAnswer) throw new TypeError('lost on the way');
      return json(this.book());
    }
    if (this.refuses[key]) return json({ detail: this.refuses[key] }, 409);
    this.puts.push(`${body.action} ${key}`);
    this.does(key, 'Imke', body.evidence ?? {}, body.action);
    if (this.losesAnswer) throw new TypeError('lost on the way');
    return json({ steps: this.steps });
  };

  async fills(request: Request) {
    if (request.method === 'PUT') {
      if (request.headers.get('If-Match') !== `"${this.sheet.version}"`)
        return new Response('{}', { status: 412 });
      const { figures } = await request.json();
      this.sheet = { ...this.sheet, figures, by: 'Imke', version: this.sheet.version + 1 };
      if (this.losesAnswer) throw new TypeError('lost on the way');
    }
    return new Response(JSON.stringify([this.sheet]));
  }

  sees(look: Look, json: (body: unknown, status?: number) => Response) {
    if (look.restsOn !== this.restsOn) return json({ detail: 'Look again.' }, 409);
    this.looks.push(look);
    if (this.losesAnswer) throw new TypeError('lost on the way');
    return json({});
  }

  book() {
    const questions = ['wall', 'ground'].map((key) => ({
      key,
      ask: `By the ${key}?`,
      options: [
        { value: 'y', label: 'Yes' },
        { value: 'n', label: 'No' },
      ],
      answer: this.facts[key] ?? 'n',
      given: key in this.facts,
      because: '',
    }));
    return { steps: this.steps, questions, facts: this.facts, openings: this.openings, current: 'unpack' };
  }

  say(key: string, { title = '', closed = false, owner = '', ends = null }: Partial<Opening>) {
    const was = this.openings.find((o) => o.key === key) ?? opening(key, title);
    // As the server reads a day.
    const day = ends && ends.replace(/^(\d\d) Dec$/, '2026-12-$1');
    const now = { ...was, closed, owner: closed ? '' : owner, ends: day };
    this.openings = [...this.openings.filter((o) => o.key !== key), now];
    this.version++;
  }

  does(key: string, by: string, evidence: Record<string, string>, action = 'COMPLETE') {
    const failed = this.fails[key];
    const status = action === 'REOPEN' ? 'PENDING' : failed ? 'FAILED' : 'PASSED';
    const findings = failed ? [{ message: failed }] : [];
    this.steps = this.steps.map((s) => (s.key === key ? { key, status, by, evidence, findings } : s));
    this.version++;
  }
}

let server = new Server();
const client = new QueryClient();
const step = (key: string, seen = ''): Did => ({
  siteId: 1,
  endpointId: 7,
  endpoint: 'Till 3',
  did: { what: 'step', key, title: key, action: 'COMPLETE', evidence: seen ? { seen } : {}, reason: '' },
});
const left = () =>
  outbox.mine.map(
    (u) => `${u.did.what === 'step' ? u.did.key : u.did.what} ${u.state}${u.theirs ? ' ' + u.theirs : ''}`,
  );
const first = () => {
  const one = outbox.mine[0];
  if (!one) throw new Error('nothing is left');
  return one;
};

describe('what was done without network', () => {
  beforeEach(async () => {
    disk.clear();
    server = new Server();
    vi.stubGlobal('fetch', server.answer);
    await outbox.open('Imke');
  });

  it('is sent in order when there is one, and outlives the page', async () => {
    server.reach = false;
    for (const key of ['unpack', 'label', 'boot']) await outbox.add(step(key, 'x'));
    await outbox.send(client);
    expect(left()).toEqual(['unpack waits', 'label waits', 'boot waits']);
    await outbox.open('Joris');
    expect(left()).toEqual([]);
    await outbox.open('Imke');
    server.reach = true;
    await outbox.send(client);
    expect([left(), server.puts]).toEqual([[], ['COMPLETE unpack', 'COMPLETE label', 'COMPLETE boot']]);
    expect(disk.size).toBe(0);
  });

  it('counts once, though the answer to it was lost', async () => {
    await outbox.add(step('unpack', 'whole'));
    server.losesAnswer = true;
    await outbox.send(client);
    expect(left()).toEqual(['unpack waits']);
    server.losesAnswer = false;
    await outbox.send(client);
    expect([left(), server.puts]).toEqual([[], ['COMPLETE unpack']]);
  });

  it('asks when the same person left it out on another device', async () => {
    server.steps = server.steps.map((s) => ({ ...s, status: 'SKIPPED', by: 'Imke', reason: 'not here' }));
    await outbox.add(step('unpack'));
    await outbox.send(client);
    expect(left()).toEqual(['unpack clash Imke: left out, not here']);
  });

  it.each([
    ['theirs', [], 'Joris'],
    ['hers', ['REOPEN unpack', 'COMPLETE unpack'], 'Imke'],
  ])('shows what somebody else did meanwhile, and %s counts as she says', async (counts, puts, by) => {
    server.does('unpack', 'Joris', { seen: 'cut' });
    await outbox.add(step('unpack', 'whole'));
    await outbox.add(step('label', 'x'));
    await outbox.send(client);
    expect(left()).toEqual(['unpack clash Joris: cut', 'label waits']);
    await (counts === 'theirs' ? outbox.drop(first().id) : outbox.again(first(), true));
    await outbox.send(client);
    expect([left(), server.puts]).toEqual([[], [...puts, 'COMPLETE label']]);
    expect(server.steps[0]?.by).toBe(by);
  });

  it('waits behind what the server does not take, and goes on after what does not hold', async () => {
    server.refuses = { unpack: 'First comes: Seals.' };
    server.fails = { label: 'The gateway is 10.0.0.1.' };
    for (const key of ['unpack', 'label', 'boot']) await outbox.add(step(key));
    await outbox.send(client);
    expect(left()).toEqual(['unpack refused', 'label waits', 'boot waits']);
    server.refuses = {};
    await outbox.again(first(), false);
    await outbox.send(client);
    expect([left(), first().says]).toEqual([['label look'], 'The gateway is 10.0.0.1.']);
  });

  it('is a look, too: it counts from when it was made, stands in the line, and not when what it rested on is another', async () => {
    const body: Look = { check: 'LINK', outcome: 'LIT', evidence: 'SEEN', restsOn: server.restsOn };
    const look: Did = { ...step(''), did: { what: 'look', title: 'Is it lit?', says: 'Lit', body } };
    server.reach = false;
    await outbox.add(look);
    const { at } = first();
    const line = (checks: object[]) => ({ checks }) as Schemas['VerificationView'];
    const asked = line([
      { check: 'LINK', status: 'PENDING', note: 'Nobody has looked yet.' },
      { check: 'REAL_JOB', status: 'PENDING', note: 'Nobody has looked yet.' },
    ]);
    expect(withUnsentLooks(asked, outbox.of(7)).missing).toBe('What was seen here is not sent yet.');
    expect(withUnsentLooks(asked, outbox.of(7)).checks).toMatchObject([
      { check: 'LINK', status: 'ACTIVE', note: 'Lit. Not sent yet.', at, by: 'Imke' },
      { check: 'REAL_JOB', status: 'PENDING', note: 'Nobody has looked yet.' },
    ]);
    server.reach = true;
    server.losesAnswer = true;
    await outbox.send(client);
    server.losesAnswer = false;
    await outbox.send(client);
    // The same moment said twice is one look at the server.
    expect([left(), server.looks]).toEqual([
      [],
      [
        { ...body, at },
        { ...body, at },
      ],
    ]);
    await outbox.add(look);
    server.restsOn = 'address 61';
    await outbox.send(client);
    expect([left(), first().says, server.looks.length]).toEqual([['look refused'], 'Look again.', 2]);
    expect(withUnsentLooks(asked, outbox.of(7)).checks).toEqual(asked.checks);
  });

  it('keeps a label that was read, and asks when somebody else read another one', async () => {
    const label = { mac: '00:00:5E:00:53:02', serial: 'B', model: '' };
    const read = (was: typeof label): Did => ({ ...step(''), did: { what: 'label', label, was } });
    await outbox.add(read({ ...server.label, serial: 'older' }));
    await outbox.send(client);
    expect(left()).toEqual(['label clash 00:00:5E:00:53:01, A']);
    await outbox.drop(first().id);
    await outbox.add(read(server.label));
    const shown = withUnsentLabel({ data: { serial: 'A' } } as never, outbox.of(7)) as { data: typeof label };
    expect(shown.data.serial).toBe('B');
    await outbox.send(client);
    expect([left(), server.label]).toEqual([[], label]);
  });

  it('keeps the figures of a worksheet, and asks when somebody else keyed in other ones', async () => {
    const filled = (hold: string, was: string): Did => ({
      ...step(''),
      did: {
        ...{ what: 'sheet', key: 'supply', title: 'Supply', names: { hold: 'Held', 'hold=2': 'Two' } },
        ...{ figures: { hold, note: '' }, was: { hold: was } },
      },
    });
    server.reach = false;
    await outbox.add(filled('0.9', '0.8'));
    await outbox.add(filled('1.1', '0.9'));
    const shown = () => withUnsentSheets([server.sheet] as never, outbox.of(7));
    expect(shown()).toMatchObject([{ figures: { hold: '1.1' }, holds: false, waits: true, version: 1 }]);
    expect(withUnsentSheets([], outbox.of(7))).toMatchObject([{ sheet: 'supply', version: 0, waits: true }]);
    server.reach = true;
    server.losesAnswer = true;
    await outbox.send(client);
    server.losesAnswer = false;
    await outbox.send(client);
    expect([left(), server.sheet.figures, server.sheet.version]).toEqual([[], { hold: '1.1', note: '' }, 3]);
    expect(shown()).toEqual([server.sheet]);
    await outbox.add(filled('2', '0.8'));
    await outbox.send(client);
    expect(left()).toEqual(['sheet clash Imke. Held: 1.1']);
    const mine = first().did as Extract<Did['did'], { what: 'sheet' }>;
    expect(sheetSays(mine, mine.figures)).toBe('Held: Two');
    await outbox.again(first(), true);
    await outbox.send(client);
    expect([left(), server.sheet.figures]).toEqual([[], { hold: '2', note: '' }]);
  });

  const book = (): Schemas['RunbookView'] => server.book() as never;
  const said = (did: Did['did']): Did => ({ ...step(''), did });
  const wall = (value: string) => said(factsDid(book(), { wall: value }));
  const door = (body: Partial<Opening>) => said(openingDid(book(), 'door', body));

  it.each<[string, () => Did, () => void, string[], string]>([
    ['an answer', () => wall('y'), () => {}, [], '{"wall":"y"} door open'],
    [
      'an answer that somebody gave too',
      () => wall('y'),
      () => (server.facts.wall = 'y'),
      [],
      '{"wall":"y"} door open',
    ],
    [
      'another answer',
      () => wall('y'),
      () => (server.facts.wall = 'n'),
      ['facts clash No'],
      '{"wall":"n"} door open',
    ],
    [
      'an answer beside another',
      () => wall('y'),
      () => (server.facts.ground = 'y'),
      [],
      '{"ground":"y","wall":"y"} door open',
    ],
    ['a door that is closed', () => door({ closed: true }), () => {}, [], '{} door closed'],
    [
      'a door that somebody else is to close',
      () => door({ closed: true }),
      () => server.say('door', { owner: 'Joris', ends: '2026-12-24' }),
      ['opening clash Joris closes it by 2026-12-24'],
      '{} door Joris',
    ],
    [
      'a door that was closed too',
      () => door({ closed: true }),
      () => server.say('door', { closed: true }),
      [],
      '{} door closed',
    ],
    [
      'another day of the same person',
      () => {
        server.say('door', { owner: 'Imke', ends: '24 Dec' });
        return door({ owner: 'Imke', ends: '25 Dec' });
      },
      () => {},
      [],
      '{} door Imke',
    ],
    [
      'one that was found, while somebody else found another',
      () => said(openingDid(book(), 'found-2', { owner: 'Imke', ends: '24 Dec', title: 'A window' })),
      () => server.say('found-2', { owner: 'Joris', ends: '2026-12-24', title: 'A hatch' }),
      [],
      '{} door open, found-2 Joris, found-3 Imke',
    ],
  ])('sends %s, and asks when somebody said otherwise', async (_, did, meanwhile, stays, stands) => {
    const one = did();
    server.reach = false;
    await outbox.add(one);
    await outbox.send(client);
    server.reach = true;
    meanwhile();
    server.losesAnswer = true;
    await outbox.send(client);
    server.losesAnswer = false;
    await outbox.send(client);
    const doors = server.openings.map((o) => `${o.key} ${o.closed ? 'closed' : o.owner || 'open'}`);
    expect([left(), `${JSON.stringify(server.facts)} ${doors.join(', ')}`]).toEqual([stays, stands]);
    if (!stays.length) return;
    await outbox.again(first(), true);
    await outbox.send(client);
    expect(left()).toEqual([]);
    expect(one.did.what === 'facts' ? server.facts.wall : server.openings[0]?.closed).toBe(
      one.did.what === 'facts' ? 'y' : true,
    );
  });

  it('sends what was said of the same one after the other, the last of which counts', async () => {
    server.reach = false;
    const says = async (body: Partial<Opening>) =>
      outbox.add(said(openingDid(withUnsent(book(), outbox.of(7)), 'door', body)));
    await says({ owner: 'Joris', ends: '24 Dec' });
    await says({ owner: 'Joris', ends: '25 Dec' });
    await outbox.send(client);
    server.reach = true;
    await outbox.send(client);
    expect([left(), server.openings]).toMatchObject([[], [{ owner: 'Joris', ends: '2026-12-25' }]]);
    server.reach = false;
    await says({ owner: 'Mo', ends: '26 Dec' });
    await says({ closed: true });
    server.reach = true;
    await outbox.send(client);
    expect([left(), server.openings]).toMatchObject([[], [{ closed: true }]]);
  });

  it('shows what was said of a device before it is sent', async () => {
    server.reach = false;
    await outbox.add(wall('y'));
    await outbox.add(door({ owner: 'Joris', ends: '24 Dec' }));
    const found = openingDid(book(), 'found-2', { owner: 'Imke', ends: '25 Dec', title: 'A window' });
    await outbox.add(said(found));
    expect(openingSays(found)).toBe('Imke closes it by 25 Dec');
    expect(withUnsent(book(), outbox.of(7))).toMatchObject({
      questions: [{ answer: 'y', given: true }, { given: false }],
      facts: { wall: 'y' },
      openings: [
        { key: 'door', owner: 'Joris', ends: '24 Dec', closed: false },
        { key: 'found-2', title: 'A window', owner: 'Imke' },
      ],
    });
  });

  it('shows in the runbook as done what waits, and only that', async () => {
    server.reach = false;
    await outbox.add(step('unpack', 'x'));
    const book = { steps: server.steps, current: 'unpack' } as never;
    expect(withUnsent(book, outbox.of(7))).toMatchObject({
      current: 'label',
      steps: [{ status: 'PASSED' }, {}, {}],
    });
    const clash = outbox.of(7).map((u) => ({ ...u, state: 'clash' as const }));
    expect(withUnsent(book, clash)).toMatchObject({
      current: 'unpack',
      steps: [{ status: 'PENDING' }, {}, {}],
    });
  });
});
