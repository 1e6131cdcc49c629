import { queryOptions } from '@tanstack/svelte-query';
import { api, ok } from '../../api/client';
import { unlessTold } from '../../api/live';

/** What waits for somebody; asked for now and then, since days pass while nobody does anything. */
export const todayQuery = queryOptions({
  queryKey: ['today'],
  queryFn: ({ signal }) => ok(api.GET('/api/today', { signal })),
  refetchInterval: unlessTold(300_000),
});
