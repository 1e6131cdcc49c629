import { queryOptions } from '@tanstack/svelte-query';
import { api, ok } from '../../api/client';
import { unlessTold } from '../../api/live';

const whileAtWork = unlessTold(60_000);

export const visitsQuery = (siteId: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'visits'],
    queryFn: ({ signal }) =>
      ok(api.GET('/api/sites/{siteId}/visits', { params: { path: { siteId } }, signal })),
  });

/** What waits at a site today beside what runs and visits: it may be taken along. */
export const waitingQuery = (siteId: number) =>
  queryOptions({
    queryKey: ['today'],
    queryFn: ({ signal }) => ok(api.GET('/api/today', { signal })),
    select: (day) =>
      [...(day.first ? [day.first] : []), ...day.now].filter(
        (n) => n.siteId === siteId && ['BROKEN', 'CUT_OFF', 'DUE'].includes(n.what),
      ),
  });

/** What goes along; it is another one when the visit was changed. */
export const preparationQuery = (id: number, version: number) =>
  queryOptions({
    queryKey: ['visit', id, 'preparation', version],
    queryFn: ({ signal }) =>
      ok(api.GET('/api/visits/{id}/preparation', { params: { path: { id } }, signal })),
  });

/** A visit; while people are at work it is asked for now and then, since what to do now changes by the clock too. */
export const visitQuery = (id: number) =>
  queryOptions({
    queryKey: ['visit', id],
    queryFn: ({ signal }) => ok(api.GET('/api/visits/{id}', { params: { path: { id } }, signal })),
    enabled: id > 0,
    refetchInterval: (query) => (query.state.data?.head.state === 'RUNNING' ? whileAtWork() : false),
  });
