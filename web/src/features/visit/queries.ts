import { queryOptions } from '@tanstack/svelte-query';
import { api, ok } from '../../api/client';

export const visitsQuery = (siteId: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'visits'],
    queryFn: ({ signal }) =>
      ok(api.GET('/api/sites/{siteId}/visits', { params: { path: { siteId } }, signal })),
  });

/** A visit; while people are at work it is asked for again and again, since it changes under everybody's hands. */
export const visitQuery = (id: number) =>
  queryOptions({
    queryKey: ['visit', id],
    queryFn: ({ signal }) => ok(api.GET('/api/visits/{id}', { params: { path: { id } }, signal })),
    enabled: id > 0,
    refetchInterval: (query) => (query.state.data?.head.state === 'RUNNING' ? 5_000 : false),
  });
