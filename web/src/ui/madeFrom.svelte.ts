import { untrack } from 'svelte';

/**
 * The version that a form was made from. What is fetched anew while it is open changes nothing of the form: when somebody else
 * has changed just this, both are kept, mine and theirs, and what is sent names the version that was seen until one of them is chosen.
 */
export function madeFrom<T extends object>(form: T, record: () => T, etag: () => string) {
  const now = () => ({ text: JSON.stringify(record()), etag: etag() });
  let was = $state.raw(untrack(now));
  let mine = $state.raw<T | null>(null);
  const changed = $derived(JSON.stringify(record()) !== was.text);
  return {
    get etag() {
      return changed ? was.etag : etag();
    },
    get changed() {
      return changed;
    },
    get showsTheirs() {
      return mine !== null;
    },
    /** Shows theirs in place of mine, or mine again. */
    turn() {
      const theirs = record();
      const other = mine ?? theirs;
      const typed = $state.snapshot(form) as T;
      mine = mine
        ? null
        : (Object.fromEntries(Object.keys(theirs).map((k) => [k, typed[k as keyof T]])) as T);
      Object.assign(form, other);
    },
    /** What is shown counts from now on. */
    choose() {
      was = now();
      mine = null;
    },
  };
}

export type MadeFrom = ReturnType<typeof madeFrom>;
