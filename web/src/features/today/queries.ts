import { queryOptions } from '@tanstack/svelte-query';
import { api, ok } from '../../api/client';

/** What waits for somebody; asked for again and again, since waits end while nobody does anything. */
export const todayQuery = queryOptions({
  queryKey: ['today'],
  queryFn: ({ signal }) => ok(api.GET('/api/today', { signal })),
  refetchInterval: 15_000,
});
