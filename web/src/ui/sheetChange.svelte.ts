import { api, ok, type Schemas } from '../api/client';
import { useChange } from '../api/change.svelte';

export type SheetAnswer = { data: Schemas['SheetView']; etag: string };
type Params = { path: { siteId: number }; header: { 'If-Match': string } };

/** Runs one change of a site sheet: keeps its problem for the form, closes on success, fetches the sheet anew. */
export function sheetChange(sheet: () => SheetAnswer, done: () => void) {
  const change = useChange(() => [['site', sheet().data.site.id], ['sites']]);
  const run = async (work: (params: Params) => Promise<unknown>) => {
    const path = { siteId: sheet().data.site.id };
    if (await change.run(() => work({ path, header: { 'If-Match': sheet().etag } }))) done();
  };
  return {
    get problem() {
      return change.problem;
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
