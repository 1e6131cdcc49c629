import { queryOptions } from '@tanstack/svelte-query';
import { api, ok, okWithTag, Problem, type Schemas } from './client';

export const sessionQuery = queryOptions({
  queryKey: ['session'],
  queryFn: async () => {
    try {
      return await ok(api.GET('/api/session'));
    } catch (e) {
      if (e instanceof Problem && e.status === 401) return null;
      throw e;
    }
  },
});
export const welcomeQuery = queryOptions({
  queryKey: ['welcome'],
  queryFn: () => ok(api.GET('/api/welcome')),
  staleTime: Infinity,
});
export const kindsQuery = queryOptions({
  queryKey: ['kinds'],
  queryFn: () => ok(api.GET('/api/kinds')),
  staleTime: Infinity,
});
export const recipeQuery = (id: string) =>
  queryOptions({
    queryKey: ['kinds', id, 'recipe'],
    queryFn: () => ok(api.GET('/api/kinds/{id}/recipe', { params: { path: { id } } })),
  });
export const sitesQuery = queryOptions({ queryKey: ['sites'], queryFn: () => ok(api.GET('/api/sites')) });

/** Most that the server gives of a list at once. */
const PAGE = 500;
const site = (siteId: number) => ({ params: { path: { siteId } } });
export const siteQuery = (siteId: number) =>
  queryOptions({
    queryKey: ['site', siteId],
    queryFn: () => ok(api.GET('/api/sites/{siteId}', site(siteId))),
  });
export const stationsQuery = (siteId: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'stations'],
    queryFn: () => ok(api.GET('/api/sites/{siteId}/stations', site(siteId))),
    refetchInterval: 20_000,
  });
export const boardQuery = (siteId: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'board'],
    queryFn: () => ok(api.GET('/api/sites/{siteId}/board', site(siteId))),
    refetchInterval: 20_000,
  });
/** Waits at every site: they are seen from everywhere, by everybody. */
export const runningQuery = queryOptions({
  queryKey: ['running'],
  queryFn: () => ok(api.GET('/api/running')),
  refetchInterval: 20_000,
  refetchIntervalInBackground: true,
});
export const diagnosisQuery = (id: number) =>
  queryOptions({
    queryKey: ['endpoint', id, 'diagnosis'],
    queryFn: () => ok(api.GET('/api/endpoints/{id}/diagnosis', { params: { path: { id } } })),
  });
export const nightQuery = (siteId: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'night'],
    queryFn: () => ok(api.GET('/api/sites/{siteId}/night', site(siteId))),
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
    queryFn: () =>
      ok(api.GET('/api/sites/{siteId}/log', { params: { path: { siteId }, query: { endpointId } } })),
  });

export const conflictsQuery = (siteId: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'conflicts'],
    queryFn: () => ok(api.GET('/api/sites/{siteId}/conflicts', site(siteId))),
  });
export const tapeQuery = (siteId: number, segmentId: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'tape', segmentId],
    queryFn: () =>
      ok(
        api.GET('/api/sites/{siteId}/segments/{segmentId}/tape', { params: { path: { siteId, segmentId } } }),
      ),
    enabled: segmentId > 0,
  });
export const sheetQuery = (siteId: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'sheet'],
    queryFn: () => okWithTag(api.GET('/api/sites/{siteId}/sheet', site(siteId))),
  });
export const growthQuery = (siteId: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'growth'],
    queryFn: () => ok(api.GET('/api/sites/{siteId}/growth', site(siteId))),
  });
export const wiringQuery = (siteId: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'wiring'],
    queryFn: () => ok(api.GET('/api/sites/{siteId}/wiring', site(siteId))),
  });
export const firewallQuery = (siteId: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'firewall'],
    queryFn: () => ok(api.GET('/api/sites/{siteId}/firewall', site(siteId))),
  });
export const renumberingsQuery = (siteId: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'renumberings'],
    queryFn: () => ok(api.GET('/api/sites/{siteId}/renumberings', site(siteId))),
    refetchInterval: 20_000,
  });

export const registriesQuery = (siteId: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'registries'],
    queryFn: () => ok(api.GET('/api/sites/{siteId}/registries', site(siteId))),
  });
export const registryLinesQuery = (siteId: number, id: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'registry', id],
    queryFn: () => ok(api.GET('/api/registries/{id}/lines', { params: { path: { id } } })),
  });
export const mediaQuery = queryOptions({
  queryKey: ['media'],
  queryFn: () => ok(api.GET('/api/media')),
  staleTime: Infinity,
});
export const registryChoicesQuery = queryOptions({
  queryKey: ['registry-choices'],
  queryFn: () => ok(api.GET('/api/registry-choices')),
  staleTime: Infinity,
});
export const dueQuery = (siteId: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'due'],
    queryFn: () => ok(api.GET('/api/sites/{siteId}/due', site(siteId))),
    refetchInterval: 60_000,
  });
export const swapsQuery = (siteId: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'swaps'],
    queryFn: () => ok(api.GET('/api/sites/{siteId}/swaps', site(siteId))),
  });
export const cleanUpQuery = (siteId: number) =>
  queryOptions({
    queryKey: ['site', siteId, 'clean-up'],
    queryFn: () => ok(api.GET('/api/sites/{siteId}/clean-up', site(siteId))),
  });

const endpoint = (id: number) => ({ params: { path: { id } } });
export const endpointQuery = (id: number) =>
  queryOptions({
    queryKey: ['endpoint', id],
    queryFn: () => okWithTag(api.GET('/api/endpoints/{id}', endpoint(id))),
    enabled: id > 0,
  });
export const interfacesQuery = (id: number) =>
  queryOptions({
    queryKey: ['endpoint', id, 'interfaces'],
    queryFn: () => ok(api.GET('/api/endpoints/{id}/interfaces', endpoint(id))),
  });
export const registrationsQuery = (id: number) =>
  queryOptions({
    queryKey: ['endpoint', id, 'registrations'],
    queryFn: () => ok(api.GET('/api/endpoints/{id}/registrations', endpoint(id))),
  });
export const chainQuery = (id: number) =>
  queryOptions({
    queryKey: ['endpoint', id, 'chain'],
    queryFn: () => ok(api.GET('/api/endpoints/{id}/chain', endpoint(id))),
  });
export const labelsQuery = (id: number) =>
  queryOptions({
    queryKey: ['endpoint', id, 'labels'],
    queryFn: () => ok(api.GET('/api/endpoints/{id}/labels', endpoint(id))),
  });
export const runbookQuery = (id: number) =>
  queryOptions({
    queryKey: ['endpoint', id, 'runbook'],
    queryFn: () => okWithTag(api.GET('/api/endpoints/{id}/runbook', endpoint(id))),
    refetchInterval: 20_000,
  });
export const lineQuery = (id: number) =>
  queryOptions({
    queryKey: ['endpoint', id, 'line'],
    queryFn: () => ok(api.GET('/api/endpoints/{id}/line', endpoint(id))),
  });
/** The latest sweep of a segment; looked at often while it runs. */
export const sweepQuery = (segment: number) =>
  queryOptions({
    queryKey: ['segment', segment, 'sweep'],
    queryFn: () => ok(api.GET('/api/segments/{id}/sweep', endpoint(segment))),
    refetchInterval: (query) => (query.state.data?.sweep?.state === 'RUNNING' ? 250 : false),
  });
/** What comes in while a round runs. */
export const underwayQuery = (id: number) =>
  queryOptions({
    queryKey: ['endpoint', id, 'underway'],
    queryFn: () => ok(api.GET('/api/endpoints/{id}/rounds/underway', endpoint(id))),
    refetchInterval: 300,
    gcTime: 0,
  });
export const benchQuery = queryOptions({
  queryKey: ['bench'],
  queryFn: () => ok(api.GET('/api/bench-panel')),
  refetchInterval: 2_000,
});
