import { queryOptions } from '@tanstack/svelte-query';
import { api, ok } from '../../api/client';

export const auditQuery = (siteId: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'audit'],
    queryFn: ({ signal }) =>
      ok(api.GET('/api/sites/{siteId}/audit', { params: { path: { siteId } }, signal })),
    staleTime: 60_000,
  });
