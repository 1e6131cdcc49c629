import type { QueryClient } from '@tanstack/svelte-query';
import { TAKEN } from '../api/answers.svelte';
import {
  boardQuery,
  endpointQuery,
  endpointsQuery,
  labelsQuery,
  lineQuery,
  runbookQuery,
  sheetQuery,
} from '../api/queries';
import { filledQuery, worksheetsQuery } from '../features/onboard/worksheet/queries';

/** So many devices are taken along, those first that are next. */
const MOST = 40;
const HOUR = 3_600_000;

/** Fetches what somebody needs to go on without network at a site: the devices that wait there, with their runbooks and labels. */
export async function takeAlong(client: QueryClient, siteId: number) {
  // Where the page itself is not kept, nobody gets to what was taken along.
  if (!navigator.serviceWorker?.controller) return;
  const taken = TAKEN + siteId;
  if (Date.now() - Number(sessionStorage.getItem(taken)) < HOUR) return;
  // What cannot be fetched just now is not taken along; nobody has asked for it.
  await client.prefetchQuery(sheetQuery(siteId));
  await client.prefetchQuery(boardQuery(siteId));
  const board = client.getQueryData(boardQuery(siteId).queryKey);
  if (!board) return;
  // One after the other: nobody waits for it.
  for (const { endpoint } of board.lines.slice(0, MOST)) {
    await client.prefetchQuery(runbookQuery(endpoint));
    await client.prefetchQuery(endpointQuery(endpoint));
    const book = client.getQueryData(runbookQuery(endpoint).queryKey)?.data;
    if (book?.steps.some((s) => s.gate.sheet)) {
      await client.prefetchQuery(worksheetsQuery);
      await client.prefetchQuery(filledQuery({ endpoint }));
    }
    await client.prefetchQuery(labelsQuery(endpoint));
  }
  const all = await client.fetchQuery(endpointsQuery(siteId)).catch(() => []);
  for (const { id } of all.filter((e) => e.station === 'CONFIRM').slice(0, MOST)) {
    await client.prefetchQuery(endpointQuery(id));
    await client.prefetchQuery(runbookQuery(id));
    await client.prefetchQuery(lineQuery(id));
  }
  sessionStorage.setItem(taken, String(Date.now()));
}
