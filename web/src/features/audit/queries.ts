import { keepPreviousData, queryOptions, skipToken } from '@tanstack/svelte-query';
import { api, ok, okWithTag, type Schemas } from '../../api/client';

export const pastQuery = (siteId: number, asked: { of: string; at: string }) =>
  queryOptions({
    queryKey: ['site', siteId, 'past', asked],
    queryFn: ({ signal }) =>
      ok(api.GET('/api/sites/{siteId}/past', { params: { path: { siteId }, query: asked }, signal })),
    enabled: !!asked.of || !!asked.at,
  });

export const changesQuery = (siteId: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'changes'],
    queryFn: ({ signal }) =>
      ok(api.GET('/api/sites/{siteId}/changes', { params: { path: { siteId } }, signal })),
  });

export const impactQuery = (
  siteId: number,
  change: Schemas['ChangeView']['change'] | undefined,
  subject: string,
) =>
  queryOptions({
    queryKey: ['site', siteId, 'impact', change, subject],
    queryFn:
      change && subject
        ? ({ signal }) =>
            ok(
              api.GET('/api/sites/{siteId}/impact', {
                params: { path: { siteId }, query: { change, subject } },
                signal,
              }),
            )
        : skipToken,
  });

export const gearQuery = (siteId: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'gear'],
    queryFn: ({ signal }) =>
      ok(api.GET('/api/sites/{siteId}/gear-readings', { params: { path: { siteId } }, signal })),
  });

export const firmwareQuery = (siteId: number, kind: string) =>
  queryOptions({
    queryKey: ['site', siteId, 'firmware', kind],
    queryFn: ({ signal }) =>
      ok(
        api.GET('/api/sites/{siteId}/firmware', {
          params: { path: { siteId }, query: { kind } },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
  });

export const wayBackQuery = (id: number) =>
  queryOptions({
    queryKey: ['endpoint', id, 'way-back'],
    queryFn: ({ signal }) =>
      okWithTag(api.GET('/api/endpoints/{id}/way-back', { params: { path: { id } }, signal })),
  });

export const recheckQuery = (siteId: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'rechecks'],
    queryFn: ({ signal }) =>
      ok(api.GET('/api/sites/{siteId}/rechecks', { params: { path: { siteId } }, signal })),
  });

export const auditQuery = (siteId: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'audit'],
    queryFn: ({ signal }) =>
      ok(api.GET('/api/sites/{siteId}/audit', { params: { path: { siteId } }, signal })),
    staleTime: 60_000,
  });

const LOOKS_EVERY = 1_000;

/** The nights of a site; while looks go on they are asked for again and again. */
export const nightsQuery = (siteId: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'nights'],
    queryFn: ({ signal }) =>
      ok(api.GET('/api/sites/{siteId}/nights', { params: { path: { siteId } }, signal })),
    refetchInterval: (q) =>
      q.state.data?.running.length || q.state.data?.nights.some((n) => !n.endedAt) ? LOOKS_EVERY : false,
  });

export const nightQuery = (nightId: number | undefined) =>
  queryOptions({
    queryKey: ['night', nightId],
    queryFn: nightId
      ? ({ signal }) => ok(api.GET('/api/nights/{nightId}', { params: { path: { nightId } }, signal }))
      : skipToken,
  });

export const morningMailQuery = queryOptions({
  queryKey: ['morning-mail'],
  queryFn: ({ signal }) => ok(api.GET('/api/morning-mail', { signal })),
});
