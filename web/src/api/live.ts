import type { Query, QueryClient } from '@tanstack/svelte-query';
import type { Schemas } from './client';

type Changed = Schemas['Changed'];

/** So long nobody hears of changes before they are asked for again and again instead, in milliseconds. */
const WITHOUT = 20_000;
/** A stream that was refused is asked for again after this. */
const AGAIN = 5_000;
/** Lists of a whole site are not fetched more often than that, and long ones seldom: a colleague may add two hundred. */
const SITE_EVERY = 1_500;
const LONG_EVERY = 15_000;
const LONG = 500;

/** What shows something of all sites, and what does of each as a whole. */
const OF_ALL = ['today', 'running'];
const OF_ALL_AS_WHOLE = ['sites'];
/** What belongs to a site that its key does not name. */
const OF_LOOKED_AT = ['visit', 'renumbering', 'night', 'segment'];
/** What never changes while the page is open. */
const FIXED = ['welcome', 'media', 'registry-choices'];

const EVERYWHERE: Changed = { sites: [], whole: [], endpoints: [], everywhere: true };

const now = { told: false };

/** How often a query is asked by itself: seldom where changes are told, and then only for what time alone changes. */
export const unlessTold = (seldom: number | false) => () => (now.told ? seldom : WITHOUT);

/** Fetches anew what a change touches, if it is older; what nobody looks at is fetched when somebody does. */
function fetchAnew(client: QueryClient, changed: Changed, before: number) {
  const active = client.getQueryCache().findAll({ queryKey: ['site'], type: 'active' });
  const looksAt = (sites: number[]) => active.some((q) => sites.includes(Number(q.queryKey[1])));
  const looked = looksAt(changed.sites),
    whole = looksAt(changed.whole);
  const touched = ({ queryKey }: Query) => {
    const [what, id] = [String(queryKey[0]), Number(queryKey[1])];
    if (FIXED.includes(what)) return false;
    if (changed.everywhere) return true;
    if (OF_ALL.includes(what)) return changed.sites.length > 0;
    if (OF_ALL_AS_WHOLE.includes(what)) return changed.whole.length > 0;
    if (what === 'site') return changed.sites.includes(id);
    if (what === 'endpoint') return whole || changed.endpoints.includes(id);
    return looked && OF_LOOKED_AT.includes(what);
  };
  void client.invalidateQueries({
    predicate: (q) => touched(q) && q.state.dataUpdatedAt < before && !later(client, q),
  });
}

const waiting = new Map<string, ReturnType<typeof setTimeout>>();

/** Whether this is a list of a site that was fetched just now; then it is fetched once more when its time has come. */
function later(client: QueryClient, { queryKey, queryHash, state }: Query): boolean {
  if (queryKey[0] !== 'site') return false;
  const long = Array.isArray(state.data) && state.data.length > LONG;
  const left = state.dataUpdatedAt + (long ? LONG_EVERY : SITE_EVERY) - Date.now();
  if (left <= 0) return false;
  if (!waiting.has(queryHash))
    waiting.set(
      queryHash,
      setTimeout(() => {
        waiting.delete(queryHash);
        void client.invalidateQueries({ queryKey, exact: true });
      }, left),
    );
  return true;
}

/** What the page that listens tells the others of its browser. */
type Word = { told: boolean; changed?: Changed; before?: number };

/** Holds one stream open, whatever becomes of it, and says what it tells. */
function stream(say: (word: Word) => void): () => void {
  let source: EventSource;
  let again: ReturnType<typeof setTimeout>;
  const open = () => {
    const begun = Date.now();
    let first = true;
    source = new EventSource('/api/live');
    source.addEventListener('changed', (event: MessageEvent<string>) => {
      const changed = JSON.parse(event.data) as Changed;
      // Nobody knows what was changed before it began.
      say(first ? { told: true, changed: EVERYWHERE, before: begun } : { told: true, changed });
      first = false;
    });
    source.onerror = () => {
      say({ told: false });
      if (source.readyState === EventSource.CLOSED) again = setTimeout(open, AGAIN);
    };
  };
  open();
  return () => {
    clearTimeout(again);
    source.close();
  };
}

/**
 * Listens for what others change. Of all pages of a browser one listens and tells the rest, because a browser opens only few
 * connections to a server. Returns how to stop.
 */
export function listen(client: QueryClient): () => void {
  const end = new AbortController();
  const others = new BroadcastChannel('knot-live');
  let listens = false;
  let without: ReturnType<typeof setTimeout>;
  const hear = ({ told, changed, before = Infinity }: Word) => {
    const lost = now.told && !told;
    if (now.told !== told) {
      now.told = told;
      // Whoever was answered before this asks by the other rule until it is told which one counts.
      for (const query of client.getQueryCache().getAll())
        for (const looks of query.observers) looks.setOptions(looks.options);
    }
    if (told) clearTimeout(without);
    if (changed) fetchAnew(client, changed, before);
    // Whoever hears nothing any more asks, and goes on asking.
    if (lost) without = setTimeout(() => void client.invalidateQueries(), WITHOUT);
  };
  others.onmessage = ({ data }: MessageEvent<Word | 'who listens?'>) => {
    if (data !== 'who listens?') hear(data);
    else if (listens) others.postMessage({ told: now.told } satisfies Word);
  };
  others.postMessage('who listens?');
  const hold = () =>
    new Promise<void>((done) => {
      listens = true;
      const close = stream((word) => {
        hear(word);
        others.postMessage(word);
      });
      end.signal.addEventListener('abort', () => (close(), done()));
    });
  // Without a secure connection a browser has no locks; then each page listens for itself.
  if ('locks' in navigator)
    navigator.locks.request('knot-live', { signal: end.signal }, hold).catch((e: unknown) => {
      if (!end.signal.aborted) throw e;
    });
  else void hold();
  return () => {
    end.abort();
    others.close();
    clearTimeout(without);
    now.told = false;
  };
}
