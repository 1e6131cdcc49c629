import type { QueryClient } from '@tanstack/svelte-query';
import { boardQuery, endpointQuery, labelsQuery, runbookQuery } from '../api/queries';

/** So many devices are taken along, those first that are next. */
const MOST = 40;
const HOUR = 3_600_000;
const taken = new Map<number, number>();

/** Fetches what somebody needs to go on without network at a site: the devices that wait there, with their runbooks and labels. */
export async function takeAlong(client: QueryClient, siteId: number) {
  if (!('caches' in globalThis) || Date.now() - (taken.get(siteId) ?? 0) < HOUR) return;
  taken.set(siteId, Date.now());
  const board = await client.fetchQuery(boardQuery(siteId));
  // One after the other: nobody waits for it.
  for (const { endpoint } of board.lines.slice(0, MOST)) {
    await client.prefetchQuery(runbookQuery(endpoint));
    await client.prefetchQuery(endpointQuery(endpoint));
    await client.prefetchQuery(labelsQuery(endpoint));
  }
}
