import { beforeEach, describe, expect, it, vi } from 'vitest';
import { fetchOrKept, isOld, network } from './answers.svelte';

const disk = new Map<string, Response>();
const cache = {
  put: async (url: string, answer: Response) => void disk.set(url, answer),
  match: async (url: string) => disk.get(url)?.clone(),
  delete: async (url: string) => disk.delete(url),
};
const at = (path: string) => new Request(`http://localhost${path}`);

/** What the server answers, or null when it cannot be reached. */
async function ask(path: string, status: number | null) {
  vi.stubGlobal('fetch', async () => {
    if (!status) throw new TypeError('no network');
    return new Response(`answer ${status}`, { status });
  });
  const answer = await fetchOrKept(at(path)).catch(() => null);
  await new Promise((settled) => setTimeout(settled));
  return answer && `${await answer.text()}${isOld(answer) ? ', kept' : ''}`;
}

describe('what was answered today', () => {
  beforeEach(() => {
    disk.clear();
    vi.stubGlobal('caches', { open: async () => cache });
  });

  it.each([
    ['is read again without network', '/api/sites/3', [200, null], 'answer 200, kept'],
    ['is read again behind a gateway that finds nobody', '/api/sites/3', [200, 502], 'answer 200, kept'],
    ['is not there when nobody asked before', '/api/sites/3', [null], null],
    ['is gone once it is said to be gone', '/api/sites/3', [200, 404, null], null],
    ['stays when it is only refused', '/api/sites/3', [200, 503, null], 'answer 200, kept'],
    ['is not kept of others', '/api/people', [200, null], null],
    ['is not kept of how ready others are', '/api/practice-readiness', [200, null], null],
  ])('%s', async (_, path, statuses, said) => {
    let last: string | null = null;
    for (const status of statuses) last = await ask(path, status);
    expect(last).toBe(said);
    expect(network.down).toBe([null, 502].includes(statuses.at(-1) ?? null));
  });
});
