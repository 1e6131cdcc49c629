import { queryOptions } from '@tanstack/svelte-query';
import { api, ok } from '../../api/client';

export const pastQuery = (siteId: number, asked: { of: string; at: string }) =>
  queryOptions({
    queryKey: ['site', siteId, 'past', asked],
    queryFn: ({ signal }) =>
      ok(api.GET('/api/sites/{siteId}/past', { params: { path: { siteId }, query: asked }, signal })),
    enabled: !!asked.of || !!asked.at,
  });

export const auditQuery = (siteId: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'audit'],
    queryFn: ({ signal }) =>
      ok(api.GET('/api/sites/{siteId}/audit', { params: { path: { siteId } }, signal })),
    staleTime: 60_000,
  });
