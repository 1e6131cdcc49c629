import { useQueryClient, type QueryKey } from '@tanstack/svelte-query';
import { readAnew } from '../../api/change.svelte';
import { api, asProblem, ok, type Problem, type Schemas } from '../../api/client';
import type { RegistryLine } from './states';

/** Runs changes of the register: keeps what went wrong, and fetches anew whatever they touch. */
export function registerWork(siteId: () => number, madeFrom?: () => QueryKey) {
  const client = useQueryClient();
  const state = $state<{ problem: Problem | null; busy: boolean }>({ problem: null, busy: false });
  /** Returns whether it was done; looking changes nothing, so nothing is fetched anew after it. */
  const run = async (work: () => Promise<unknown>, looking = false): Promise<boolean> => {
    state.busy = true;
    let done = false;
    try {
      await work();
      state.problem = null;
      done = true;
    } catch (error) {
      state.problem = asProblem(error);
    }
    if (looking) {
      state.busy = false;
      return done;
    }
    // Nobody waits for the lists around it; the buttons stay shut until they are true again.
    void Promise.allSettled([
      client.invalidateQueries({ queryKey: ['site', siteId()] }),
      client.invalidateQueries({ queryKey: ['endpoint'] }),
    ]).then(() => (state.busy = false));
    if (done && madeFrom) await readAnew(client, madeFrom());
    return done;
  };
  return {
    get problem() {
      return state.problem;
    },
    get busy() {
      return state.busy;
    },
    run,
    /** Does one thing with an entry, from the version that is on the screen. */
    act: (line: RegistryLine, body: Schemas['ActRequest']) =>
      run(() =>
        ok(
          api.POST('/api/registrations/{id}/acts', {
            params: { path: { id: line.id ?? 0 }, header: { 'If-Match': `"${line.version}"` } },
            body,
          }),
        ),
      ),
  };
}
