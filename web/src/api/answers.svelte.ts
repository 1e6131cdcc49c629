/** Answers that were given here today: they are read again when there is no network. */
const CACHE = 'knot-answers';
const WHEN = 'Knot-Kept-At';
/** Marks a site of which what is needed without network was fetched. */
export const TAKEN = 'knot-taken-';
const DAY = 86_400_000;
const GATEWAY = [502, 504];

/** What is only of its moment, or of others: it is not kept on this device. */
const NOT_KEPT =
  /^\/api\/(live|bench-panel|people|sign-ins|invitations|log|me|practice-readiness)\b|\/(underway|sweep|log|past)$/;

/** Whether the server can be reached, as far as the last request told, and since when not. */
export const network = $state({ down: false, since: 0 });

function told(reached: boolean) {
  if (network.down === !reached) return;
  network.down = !reached;
  network.since = reached ? 0 : Date.now();
}

const keeps = (request: Request) =>
  request.method === 'GET' && 'caches' in globalThis && !NOT_KEPT.test(new URL(request.url).pathname);

async function keep(url: string, response: Response) {
  const headers = new Headers(response.headers);
  // What time it was at the server then is not what time it is.
  headers.delete('Knot-Now');
  headers.set(WHEN, String(Date.now()));
  const cache = await caches.open(CACHE);
  await cache.put(url, new Response(await response.blob(), { headers }));
}

async function given(request: Request): Promise<Response | undefined> {
  const cache = await caches.open(CACHE);
  const answer = await cache.match(request.url);
  return answer && Date.now() - Number(answer.headers.get(WHEN)) < DAY ? answer : undefined;
}

const forget = async (url: string) => (await caches.open(CACHE)).delete(url);

/** Asks the server; where it cannot be reached, what is read is what it answered last, if that was within a day. */
export async function fetchOrKept(request: Request): Promise<Response> {
  const kept = keeps(request);
  try {
    const response = await fetch(request);
    // A gateway that finds nobody behind it is no answer.
    if (GATEWAY.includes(response.status)) throw new TypeError('nobody answers behind the gateway');
    told(true);
    // A disk that is full keeps nobody from work.
    if (kept && response.ok) void keep(request.url, response.clone()).catch(() => {});
    // What is gone, or no longer for whoever asks, is not shown without network either.
    if (kept && response.status === 404) void forget(request.url);
    return response;
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') throw error;
    told(false);
    const answer = kept ? await given(request) : undefined;
    if (answer) return answer;
    throw error;
  }
}

/** Whether the server did not give this answer now. */
export const isOld = (response: Response) => response.headers.has(WHEN);

/** Forgets all of it: somebody signed out. */
export async function forgetAnswers() {
  for (const key of Object.keys(sessionStorage)) if (key.startsWith(TAKEN)) sessionStorage.removeItem(key);
  if ('caches' in globalThis) await caches.delete(CACHE);
}
