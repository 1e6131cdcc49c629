import { queryOptions } from '@tanstack/svelte-query';
import { api, ok } from '../../api/client';

export const practiceQuery = queryOptions({
  queryKey: ['practice'],
  queryFn: ({ signal }) => ok(api.GET('/api/practice', { signal })),
});

export const caseQuery = (caseId: string) =>
  queryOptions({
    queryKey: ['practice', caseId],
    queryFn: ({ signal }) => ok(api.GET('/api/practice/{caseId}', { params: { path: { caseId } }, signal })),
    staleTime: Infinity,
  });

/** For leads: who agreed that they see for what they are ready. */
export const readyQuery = queryOptions({
  queryKey: ['practice', 'ready'],
  queryFn: ({ signal }) => ok(api.GET('/api/practice-readiness', { signal })),
});
