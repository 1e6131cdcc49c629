import { QueryClient } from '@tanstack/svelte-query';
import { describe, expect, it, vi } from 'vitest';
import { runbookQuery } from './queries';

const book = (version: number) => ({ data: { current: `step ${version}` }, etag: `"${version}"` });

describe('a runbook', () => {
  it.each([
    ['an older answer that was on its way', 9, 8, 9],
    ['the same', 9, 9, 9],
    ['what a colleague did since', 9, 10, 10],
  ])('shows after %s the newest', async (_, shown, comes, newest) => {
    const client = new QueryClient();
    const query = runbookQuery(7);
    let answer: (response: Response) => void = () => {};
    vi.stubGlobal('fetch', () => new Promise((done) => (answer = done)));
    const asked = client.fetchQuery({ ...query, staleTime: 0 });
    client.setQueryData(query.queryKey, book(shown) as never);
    await vi.waitFor(() => {
      answer(new Response(JSON.stringify(book(comes).data), { headers: { ETag: book(comes).etag } }));
      expect(client.isFetching()).toBe(0);
    });
    await asked;
    expect(client.getQueryData(query.queryKey)).toEqual(book(newest));
    vi.unstubAllGlobals();
  });
});
