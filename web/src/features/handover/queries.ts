import { queryOptions } from '@tanstack/svelte-query';
import { api, ok, type Schemas } from '../../api/client';

export const readinessQuery = (siteId: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'handover'],
    queryFn: ({ signal }) =>
      ok(api.GET('/api/sites/{siteId}/handover', { params: { path: { siteId } }, signal })),
  });
export const gridsQuery = queryOptions({
  queryKey: ['label-grids'],
  queryFn: ({ signal }) => ok(api.GET('/api/label-grids', { signal })),
});
export const labelsPreviewQuery = (siteId: number, wanted: Schemas['LabelRequest']) =>
  queryOptions({
    queryKey: ['site', siteId, 'labels', wanted],
    queryFn: ({ signal }) =>
      ok(
        api.POST('/api/sites/{siteId}/labels/preview', {
          params: { path: { siteId } },
          body: wanted,
          signal,
        }),
      ),
    placeholderData: (before) => before,
    retry: false,
  });
export const packsQuery = (siteId: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'packs'],
    queryFn: ({ signal }) =>
      ok(api.GET('/api/sites/{siteId}/packs', { params: { path: { siteId } }, signal })),
  });
export const tagQuery = (code: string) =>
  queryOptions({
    queryKey: ['tag', code],
    queryFn: ({ signal }) => ok(api.GET('/api/tag', { params: { query: { code } }, signal })),
    retry: false,
  });

/** What is looked for in the log; an empty text finds everything. */
export interface Asked {
  q: string;
  person: string;
  action: string;
  upTo: string | undefined;
}
export const logbookQuery = (siteId: number, asked: Asked) =>
  queryOptions({
    queryKey: ['site', siteId, 'log', 'book', asked],
    queryFn: ({ signal }) =>
      ok(
        api.GET('/api/sites/{siteId}/logbook', { params: { path: { siteId }, query: { ...asked } }, signal }),
      ),
    placeholderData: (before) => before,
  });
export const logChoicesQuery = (siteId: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'log', 'choices'],
    queryFn: ({ signal }) =>
      ok(api.GET('/api/sites/{siteId}/log/choices', { params: { path: { siteId } }, signal })),
  });

export const sealsQuery = (siteId: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'seals'],
    queryFn: ({ signal }) =>
      ok(api.GET('/api/sites/{siteId}/seals', { params: { path: { siteId } }, signal })),
  });
