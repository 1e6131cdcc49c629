import { QueryClient, QueryObserver } from '@tanstack/svelte-query';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { listen, unlessTold } from './live';

class Source extends EventTarget {
  static readonly CLOSED = 2;
  static all: Source[] = [];
  readyState = 1;
  onerror = () => {};
  constructor(readonly url: string) {
    super();
    Source.all.push(this);
  }
  tell(changed: object = {}) {
    const data = JSON.stringify({ sites: [], whole: [], endpoints: [], everywhere: false, ...changed });
    this.dispatchEvent(new MessageEvent('changed', { data }));
  }
  close() {
    this.readyState = 2;
  }
}

class Channel {
  static all: Channel[] = [];
  onmessage: (event: { data: unknown }) => void = () => {};
  constructor() {
    Channel.all.push(this);
  }
  postMessage(data: unknown) {
    for (const other of Channel.all) if (other !== this) other.onmessage({ data });
  }
  close() {
    Channel.all = Channel.all.filter((c) => c !== this);
  }
}

/** Locks as a browser keeps them: the next one has it when the one before lets go. */
function locks() {
  let tail: Promise<unknown> = Promise.resolve();
  return {
    request: (_: string, { signal }: { signal: AbortSignal }, hold: () => Promise<void>) =>
      (tail = tail.then(() => (signal.aborted ? undefined : hold()))),
  };
}

/** A page that looks at some queries; counts how often each was fetched. */
function page(keys: unknown[][]) {
  const client = new QueryClient();
  const fetched: Record<string, number> = {};
  const ends = keys.map((queryKey) =>
    new QueryObserver(client, {
      queryKey,
      queryFn: () => (fetched[queryKey.join(' ')] = (fetched[queryKey.join(' ')] ?? 0) + 1),
    }).subscribe(() => {}),
  );
  const stop = listen(client);
  return { client, fetched, stop: () => (stop(), ends.forEach((end) => end())) };
}

const KEYS = [['site', 1], ['site', 2], ['endpoint', 7], ['endpoint', 8], ['today'], ['visit', 3], ['media']];
const pages: { stop: () => void }[] = [];
const opened = (keys = KEYS) => {
  const one = page(keys);
  pages.push(one);
  return one;
};
const later = (millis: number) => vi.advanceTimersByTimeAsync(millis);

describe('what others change', () => {
  beforeEach(() => {
    vi.useFakeTimers();
    vi.stubGlobal('EventSource', Source);
    vi.stubGlobal('BroadcastChannel', Channel);
    Source.all = [];
    Channel.all = [];
  });
  afterEach(() => {
    for (const one of pages.splice(0)) one.stop();
    vi.unstubAllGlobals();
    vi.useRealTimers();
  });

  it.each([
    ['a tie', { sites: [1], endpoints: [7] }, 'site 1, endpoint 7, today, visit 3'],
    [
      'a change of the whole site',
      { sites: [1], whole: [1] },
      'site 1, endpoint 7, endpoint 8, today, visit 3',
    ],
    ['a tie at a site that nobody looks at', { sites: [9], endpoints: [70] }, 'today'],
    ['an unknown change', { everywhere: true }, 'site 1, site 2, endpoint 7, endpoint 8, today, visit 3'],
    ['nothing', {}, ''],
  ])('fetches anew what %s touches', async (_, changed, touched) => {
    const { fetched } = opened();
    await later(10);
    Source.all[0]?.tell();
    await later(3_000);
    const before = { ...fetched };
    Source.all[0]?.tell(changed);
    await later(10);
    expect(
      KEYS.map((k) => k.join(' '))
        .filter((k) => (fetched[k] ?? 0) > (before[k] ?? 0))
        .join(', '),
    ).toBe(touched);
  });

  it('fetches a list of the site once for many changes in one moment, and the last of them is in it', async () => {
    const { fetched } = opened();
    await later(10);
    Source.all[0]?.tell();
    await later(3_000);
    for (let i = 0; i < 20; i++) {
      Source.all[0]?.tell({ sites: [1], endpoints: [7] });
      await later(10);
    }
    expect(fetched['site 1']).toBe(2);
    await later(1_500);
    expect(fetched['site 1']).toBe(3);
    expect(fetched['endpoint 7']).toBe(21);
  });

  it('asks no more by itself once it is told, though the stream came later than the first answer', async () => {
    const client = new QueryClient();
    let asked = 0;
    const options = { queryKey: ['site', 9], queryFn: () => ++asked, refetchInterval: unlessTold(false) };
    const end = new QueryObserver(client, options).subscribe(() => {});
    const stop = listen(client);
    await later(5_000);
    expect(asked).toBe(1);
    Source.all.at(-1)?.tell();
    await later(2_000);
    const told = asked;
    await later(60_000);
    expect(asked).toBe(told);
    stop();
    end();
  });

  it('asks again and again while nobody tells, and everything once when somebody does again', async () => {
    const every = unlessTold(false);
    const { fetched } = opened([['site', 1]]);
    expect(every()).toBe(20_000);
    Source.all[0]?.tell();
    expect(every()).toBe(false);
    await later(3_000);
    const source = Source.all[0];
    if (!source) throw new Error('nobody listens');
    source.readyState = 2;
    source.onerror();
    expect(every()).toBe(20_000);
    await later(5_000);
    expect(Source.all).toHaveLength(2);
    const before = fetched['site 1'] ?? 0;
    Source.all[1]?.tell();
    await later(2_000);
    expect(fetched['site 1']).toBe(before + 1);
  });

  it('opens one stream for all pages of a browser, and the next page takes over', async () => {
    vi.stubGlobal('navigator', { locks: locks() });
    const first = opened([['site', 1]]);
    const second = opened([['site', 1]]);
    await later(3_000);
    expect(Source.all).toHaveLength(1);
    Source.all[0]?.tell();
    await later(3_000);
    Source.all[0]?.tell({ sites: [1] });
    await later(10);
    expect([first.fetched['site 1'], second.fetched['site 1']]).toEqual([2, 2]);
    first.stop();
    await later(10);
    expect(Source.all).toHaveLength(2);
    Source.all[1]?.tell();
    await later(1_500);
    expect(second.fetched['site 1']).toBe(3);
  });
});
