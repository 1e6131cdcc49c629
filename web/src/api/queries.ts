import { queryOptions, replaceEqualDeep } from '@tanstack/svelte-query';
import { api, ok, okWithTag, Problem, type Schemas } from './client';
import { unlessTold } from './live';

/** Days pass, and what is due changes, though nobody changes anything. */
const BY_THE_DAY = 600_000;

export const sessionQuery = queryOptions({
  queryKey: ['session'],
  queryFn: async ({ signal }) => {
    try {
      return await ok(api.GET('/api/session', { signal }));
    } catch (e) {
      if (e instanceof Problem && e.status === 401) return null;
      throw e;
    }
  },
});
export const welcomeQuery = queryOptions({
  queryKey: ['welcome'],
  queryFn: ({ signal }) => ok(api.GET('/api/welcome', { signal })),
  staleTime: Infinity,
});
export const kindsQuery = queryOptions({
  queryKey: ['kinds'],
  queryFn: ({ signal }) => ok(api.GET('/api/kinds', { signal })),
  staleTime: Infinity,
});
export const recipeQuery = (id: string) =>
  queryOptions({
    queryKey: ['kinds', id, 'recipe'],
    queryFn: ({ signal }) => ok(api.GET('/api/kinds/{id}/recipe', { params: { path: { id } }, signal })),
  });
export const sitesQuery = queryOptions({
  queryKey: ['sites'],
  queryFn: ({ signal }) => ok(api.GET('/api/sites', { signal })),
});

/** Most that the server gives of a list at once. */
const PAGE = 500;
const site = (siteId: number, signal: AbortSignal) => ({ params: { path: { siteId } }, signal });
export const siteQuery = (siteId: number) =>
  queryOptions({
    queryKey: ['site', siteId],
    queryFn: ({ signal }) => ok(api.GET('/api/sites/{siteId}', site(siteId, signal))),
  });
export const stationsQuery = (siteId: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'stations'],
    queryFn: ({ signal }) => ok(api.GET('/api/sites/{siteId}/stations', site(siteId, signal))),
    refetchInterval: unlessTold(false),
  });
export const boardQuery = (siteId: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'board'],
    queryFn: ({ signal }) => ok(api.GET('/api/sites/{siteId}/board', site(siteId, signal))),
    refetchInterval: unlessTold(false),
  });
/** Waits at every site: they are seen from everywhere, by everybody. */
export const runningQuery = queryOptions({
  queryKey: ['running'],
  queryFn: ({ signal }) => ok(api.GET('/api/running', { signal })),
  refetchInterval: unlessTold(false),
  refetchIntervalInBackground: true,
});
export const diagnosisQuery = (id: number) =>
  queryOptions({
    queryKey: ['endpoint', id, 'diagnosis'],
    queryFn: ({ signal }) =>
      ok(api.GET('/api/endpoints/{id}/diagnosis', { params: { path: { id } }, signal })),
  });
export const nightQuery = (siteId: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'night'],
    queryFn: ({ signal }) => ok(api.GET('/api/sites/{siteId}/night', site(siteId, signal))),
  });
export const endpointsQuery = (siteId: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'endpoints'],
    // All of them, page by page: a list that ends in the middle would say that the rest is not there.
    queryFn: async ({ signal }) => {
      const all: Schemas['EndpointLine'][] = [];
      for (;;) {
        const last = all.at(-1);
        const query = { afterAddress: last?.address ?? '0.0.0.0', afterId: last?.id ?? 0, limit: PAGE };
        const page = await ok(
          api.GET('/api/sites/{siteId}/endpoints', { params: { path: { siteId }, query }, signal }),
        );
        all.push(...page);
        if (page.length < PAGE) return all;
      }
    },
  });
export const logQuery = (siteId: number, endpointId?: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'log', endpointId ?? 0],
    queryFn: ({ signal }) =>
      ok(api.GET('/api/sites/{siteId}/log', { params: { path: { siteId }, query: { endpointId } }, signal })),
  });

export const conflictsQuery = (siteId: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'conflicts'],
    queryFn: ({ signal }) => ok(api.GET('/api/sites/{siteId}/conflicts', site(siteId, signal))),
  });
export const tapeQuery = (siteId: number, segmentId: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'tape', segmentId],
    queryFn: ({ signal }) =>
      ok(
        api.GET('/api/sites/{siteId}/segments/{segmentId}/tape', {
          params: { path: { siteId, segmentId } },
          signal,
        }),
      ),
    enabled: segmentId > 0,
  });
export const sheetQuery = (siteId: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'sheet'],
    queryFn: ({ signal }) => okWithTag(api.GET('/api/sites/{siteId}/sheet', site(siteId, signal))),
  });
export const growthQuery = (siteId: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'growth'],
    queryFn: ({ signal }) => ok(api.GET('/api/sites/{siteId}/growth', site(siteId, signal))),
  });
export const wiringQuery = (siteId: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'wiring'],
    queryFn: ({ signal }) => ok(api.GET('/api/sites/{siteId}/wiring', site(siteId, signal))),
  });
export const firewallQuery = (siteId: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'firewall'],
    queryFn: ({ signal }) => ok(api.GET('/api/sites/{siteId}/firewall', site(siteId, signal))),
  });
export const renumberingsQuery = (siteId: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'renumberings'],
    queryFn: ({ signal }) => ok(api.GET('/api/sites/{siteId}/renumberings', site(siteId, signal))),
    refetchInterval: unlessTold(false),
  });

export const registriesQuery = (siteId: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'registries'],
    queryFn: ({ signal }) => ok(api.GET('/api/sites/{siteId}/registries', site(siteId, signal))),
  });
export const registryLinesQuery = (siteId: number, id: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'registry', id],
    queryFn: ({ signal }) => ok(api.GET('/api/registries/{id}/lines', { params: { path: { id } }, signal })),
  });
export const mediaQuery = queryOptions({
  queryKey: ['media'],
  queryFn: ({ signal }) => ok(api.GET('/api/media', { signal })),
  staleTime: Infinity,
});
export const registryChoicesQuery = queryOptions({
  queryKey: ['registry-choices'],
  queryFn: ({ signal }) => ok(api.GET('/api/registry-choices', { signal })),
  staleTime: Infinity,
});
export const dueQuery = (siteId: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'due'],
    queryFn: ({ signal }) => ok(api.GET('/api/sites/{siteId}/due', site(siteId, signal))),
    refetchInterval: unlessTold(BY_THE_DAY),
  });
export const swapsQuery = (siteId: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'swaps'],
    queryFn: ({ signal }) => ok(api.GET('/api/sites/{siteId}/swaps', site(siteId, signal))),
  });
export const cleanUpQuery = (siteId: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'clean-up'],
    queryFn: ({ signal }) => ok(api.GET('/api/sites/{siteId}/clean-up', site(siteId, signal))),
  });

const endpoint = (id: number, signal: AbortSignal) => ({ params: { path: { id } }, signal });
export const endpointQuery = (id: number) =>
  queryOptions({
    queryKey: ['endpoint', id],
    queryFn: ({ signal }) => okWithTag(api.GET('/api/endpoints/{id}', endpoint(id, signal))),
    enabled: id > 0,
  });
export const interfacesQuery = (id: number) =>
  queryOptions({
    queryKey: ['endpoint', id, 'interfaces'],
    queryFn: ({ signal }) => ok(api.GET('/api/endpoints/{id}/interfaces', endpoint(id, signal))),
  });
export const registrationsQuery = (id: number) =>
  queryOptions({
    queryKey: ['endpoint', id, 'registrations'],
    queryFn: ({ signal }) => ok(api.GET('/api/endpoints/{id}/registrations', endpoint(id, signal))),
  });
export const chainQuery = (id: number) =>
  queryOptions({
    queryKey: ['endpoint', id, 'chain'],
    queryFn: ({ signal }) => ok(api.GET('/api/endpoints/{id}/chain', endpoint(id, signal))),
  });
export const labelsQuery = (id: number) =>
  queryOptions({
    queryKey: ['endpoint', id, 'labels'],
    queryFn: ({ signal }) => ok(api.GET('/api/endpoints/{id}/labels', endpoint(id, signal))),
  });
const version = (answer: unknown) => Number((answer as { etag: string }).etag.replace(/\D/g, ''));
/** An answer that was on its way while something was done is older than what is shown: it is not shown again. */
export const newest = (was: unknown, now: unknown) =>
  was && version(was) > version(now) ? was : replaceEqualDeep(was, now);

export const runbookQuery = (id: number) =>
  queryOptions({
    queryKey: ['endpoint', id, 'runbook'],
    queryFn: ({ signal }) => okWithTag(api.GET('/api/endpoints/{id}/runbook', endpoint(id, signal))),
    structuralSharing: newest,
    refetchInterval: unlessTold(false),
  });
export const lineQuery = (id: number) =>
  queryOptions({
    queryKey: ['endpoint', id, 'line'],
    queryFn: ({ signal }) => ok(api.GET('/api/endpoints/{id}/verification', endpoint(id, signal))),
  });
/** The latest sweep of a segment; looked at often while it runs. */
export const sweepQuery = (segment: number) =>
  queryOptions({
    queryKey: ['segment', segment, 'sweep'],
    queryFn: ({ signal }) => ok(api.GET('/api/segments/{id}/sweep', endpoint(segment, signal))),
    refetchInterval: (query) => (query.state.data?.sweep?.state === 'RUNNING' ? 250 : false),
  });
/** What comes in while a round runs. */
export const underwayQuery = (id: number) =>
  queryOptions({
    queryKey: ['endpoint', id, 'underway'],
    queryFn: ({ signal }) => ok(api.GET('/api/endpoints/{id}/check-runs/underway', endpoint(id, signal))),
    refetchInterval: 300,
    gcTime: 0,
  });
export const benchQuery = queryOptions({
  queryKey: ['bench'],
  queryFn: ({ signal }) => ok(api.GET('/api/bench-panel', { signal })),
  refetchInterval: 2_000,
});
