import { useQueryClient, type QueryClient, type QueryKey } from '@tanstack/svelte-query';
import { asProblem, keyAfter, type Problem } from './client';

/** Waits for what is being fetched anew, or fetches it. */
export const readAnew = (client: QueryClient, queryKey: QueryKey) =>
  client.refetchQueries({ queryKey, exact: true, type: 'active' }, { cancelRefetch: false });

/**
 * Runs changes, one at a time: keeps what went wrong for the form, is busy meanwhile, so that a second press does nothing, and
 * fetches anew just what they touch, whether they were taken or refused. What the next change is made from is there before one
 * is done: otherwise whoever is quick would be told of a stranger who changed it, and that was oneself.
 */
export function useChange(touched: () => QueryKey[] = () => [], madeFrom?: () => QueryKey) {
  const client = useQueryClient();
  const state = $state<{ problem: Problem | null; busy: boolean }>({ problem: null, busy: false });
  return {
    get problem() {
      return state.problem;
    },
    get busy() {
      return state.busy;
    },
    /** Forgets what went wrong, as when a form is opened anew. */
    clear: () => (state.problem = null),
    /** Returns whether it was done. What creates brings its key, so that it is made once whatever becomes of the answer. */
    run: async (work: () => Promise<unknown>, key?: { 'Idempotency-Key': string }): Promise<boolean> => {
      if (state.busy) return false;
      state.busy = true;
      let done = false;
      try {
        await work();
        state.problem = null;
        done = true;
      } catch (error) {
        state.problem = asProblem(error);
        if (key) keyAfter(key, state.problem);
      }
      // Nobody waits for the lists around it.
      for (const queryKey of touched()) void client.invalidateQueries({ queryKey });
      if (done && madeFrom) await readAnew(client, madeFrom());
      state.busy = false;
      return done;
    },
  };
}
