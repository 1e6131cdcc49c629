import { useQueryClient } from '@tanstack/svelte-query';
import { api, asProblem, ok, type Problem, type Schemas } from '../api/client';

export type SheetAnswer = { data: Schemas['SheetView']; etag: string };
type Params = { path: { siteId: number }; header: { 'If-Match': string } };

/** Runs one change of a site sheet: keeps its problem for the form, closes on success, fetches the sheet anew. */
export function sheetChange(sheet: () => SheetAnswer, done: () => void) {
  const client = useQueryClient();
  const state = $state<{ problem: Problem | null }>({ problem: null });
  const run = async (work: (params: Params) => Promise<unknown>) => {
    const siteId = sheet().data.site.id;
    try {
      await work({ path: { siteId }, header: { 'If-Match': sheet().etag } });
      state.problem = null;
      done();
    } catch (error) {
      state.problem = asProblem(error);
    }
    await client.invalidateQueries({ queryKey: ['site', siteId] });
    await client.invalidateQueries({ queryKey: ['sites'] });
  };
  return {
    get problem() {
      return state.problem;
    },
    run,
    /** Takes a place, an outlet, a service or a piece of gear off the sheet. */
    remove: (thing: 'PLACES' | 'OUTLETS' | 'GEAR' | 'SERVICES', id: number) =>
      run(({ path, header }) =>
        ok(
          api.DELETE('/api/sites/{siteId}/things/{thing}/{id}', {
            params: { path: { ...path, thing, id }, header },
          }),
        ),
      ),
  };
}
