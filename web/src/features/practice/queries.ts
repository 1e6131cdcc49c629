import { queryOptions } from '@tanstack/svelte-query';
import { api, ok, type Schemas } from '../../api/client';

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

/** One task of a round of hands as somebody did it. */
export type HandDone = Schemas['HandJudged'] & {
  drill: Schemas['HandTaskView']['drill'];
  /** What was typed, where something was. */
  typed: string;
  seconds: number;
};
export const handsQuery = (round: number) =>
  queryOptions({
    queryKey: ['practice', 'hands', round],
    queryFn: ({ signal }) =>
      ok(api.GET('/api/practice/hands/{round}', { params: { path: { round } }, signal })),
    staleTime: Infinity,
  });
