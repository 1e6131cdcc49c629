import { QueryClient } from '@tanstack/svelte-query';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { outbox, withUnsent, withUnsentLabel, type Did } from './outbox.svelte';

const disk = vi.hoisted(() => new Map<number, unknown>());
vi.mock('idb-keyval', () => ({
  createStore: () => null,
  entries: async () => [...disk.entries()],
  set: async (key: number, value: unknown) => void disk.set(key, value),
  del: async (key: number) => void disk.delete(key),
}));

type Step = {
  key: string;
  status: string;
  by: string;
  evidence: Record<string, string>;
  findings: { message: string }[];
};
const open = (key: string): Step => ({ key, status: 'PENDING', by: '', evidence: {}, findings: [] });

/** A server with one runbook, as far as the outbox knows it; it may be out of reach, and lose its answers. */
class Server {
  steps = ['unpack', 'label', 'boot'].map(open);
  version = 1;
  reach = true;
  losesAnswer = false;
  refuses: Record<string, string> = {};
  fails: Record<string, string> = {};
  puts: string[] = [];
  label = { mac: '00:00:5E:00:53:01', serial: 'A', model: '' };

  answer = async (request: Request) => {
    if (!this.reach) throw new TypeError('no network');
    const path = new URL(request.url).pathname;
    const json = (body: unknown, status = 200) =>
      new Response(JSON.stringify(body), { status, headers: { ETag: `"${this.version}"` } });
    if (request.method === 'GET') return json(path.endsWith('runbook') ? { steps: this.steps } : this.label);
    if (request.headers.get('If-Match') !== `"${this.version}"`) return json({}, 412);
    const body = await request.json();
    if (request.method === 'PATCH') {
      this.label = body;
      this.version++;
      return json(this.label);
    }
    const key = path.split('/').at(-1) ?? '';
    if (this.refuses[key]) return json({ detail: this.refuses[key] }, 409);
    this.puts.push(`${body.action} ${key}`);
    this.does(key, 'Imke', body.evidence ?? {}, body.action);
    if (this.losesAnswer) throw new TypeError('lost on the way');
    return json({ steps: this.steps });
  };

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
    (u) => `${u.did.what === 'step' ? u.did.key : 'label'} ${u.state}${u.theirs ? ' ' + u.theirs : ''}`,
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
