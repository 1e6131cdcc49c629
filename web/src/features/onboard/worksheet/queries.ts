import { queryOptions } from '@tanstack/svelte-query';
import { api, ok, type Schemas } from '../../../api/client';

export const worksheetsQuery = queryOptions({
  queryKey: ['worksheets'],
  queryFn: ({ signal }) => ok(api.GET('/api/worksheets', { signal })),
  staleTime: Infinity,
});

/** Whose figures they are: an endpoint's, or the site's as a whole. */
export type Owner = { endpoint: number } | { site: number };

export const filledKey = (owner: Owner) =>
  'endpoint' in owner ? ['endpoint', owner.endpoint, 'worksheets'] : ['site', owner.site, 'worksheets'];

export const filledQuery = (owner: Owner) =>
  queryOptions({
    queryKey: filledKey(owner),
    queryFn: ({ signal }) =>
      ok(
        'endpoint' in owner
          ? api.GET('/api/endpoints/{id}/worksheets', { params: { path: { id: owner.endpoint } }, signal })
          : api.GET('/api/sites/{siteId}/worksheets', { params: { path: { siteId: owner.site } }, signal }),
      ),
  });

/** Keeps figures from the version that was seen; 0 for the first. */
export function keepFigures(
  owner: Owner,
  key: string,
  version: number,
  figures: Record<string, string>,
): Promise<Schemas['FilledSheet'][]> {
  const header = { 'If-Match': `"${version}"` };
  const body = { figures };
  return ok(
    'endpoint' in owner
      ? api.PUT('/api/endpoints/{id}/worksheets/{key}', {
          params: { path: { id: owner.endpoint, key }, header },
          body,
        })
      : api.PUT('/api/sites/{siteId}/worksheets/{key}', {
          params: { path: { siteId: owner.site, key }, header },
          body,
        }),
  );
}
