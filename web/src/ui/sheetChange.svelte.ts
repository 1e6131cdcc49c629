import { api, ok, type Schemas } from '../api/client';
import { untrack } from 'svelte';
import { useChange } from '../api/change.svelte';
import { madeFrom } from './madeFrom.svelte';

export type SheetAnswer = { data: Schemas['SheetView']; etag: string };
type Params = { path: { siteId: number }; header: { 'If-Match': string } };

/**
 * Runs one change of a site sheet: keeps its problem for the form, closes on success, fetches the sheet anew. It is made from
 * the version that the form was opened with; after a refusal the next try is made from what stands now.
 */
export function sheetChange<T extends object>(of: {
  sheet: () => SheetAnswer;
  done: () => void;
  form?: T;
  record?: () => T;
}) {
  const { sheet, done } = of;
  const made = of.form && of.record && madeFrom(of.form, of.record, () => sheet().etag);
  let seen: string | null = untrack(sheet).etag;
  const change = useChange(
    () => [['site', sheet().data.site.id], ['sites']],
    () => ['site', sheet().data.site.id, 'sheet'],
  );
  const run = async (work: (params: Params) => Promise<unknown>) => {
    const path = { siteId: sheet().data.site.id };
    const version = made?.etag ?? seen ?? sheet().etag;
    if (await change.run(() => work({ path, header: { 'If-Match': version } }))) done();
    else seen = null;
  };
  return {
    made,
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

export type SheetChange = ReturnType<typeof sheetChange>;
