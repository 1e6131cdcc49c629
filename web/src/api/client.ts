import createClient, { type Middleware } from 'openapi-fetch';
import { fetchOrKept } from './answers.svelte';
import { serverClock } from '../ui/now.svelte';
import type { components, paths } from './schema';

export type Schemas = components['schemas'];

/** A refusal from the server, as problem details (RFC 9457). */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly errors: { pointer: string; message: string }[] = [],
    readonly more: Record<string, unknown> = {},
  ) {
    super(message);
  }

  /** What is wrong with one field of the form, or nothing. */
  field(name: string): string | undefined {
    return this.errors.find((e) => e.pointer === '/' + name)?.message;
  }
}

const csrf: Middleware = {
  onRequest({ request }) {
    const token = /(?:^|; )XSRF-TOKEN=([^;]+)/.exec(document.cookie)?.[1];
    if (token && request.method !== 'GET') request.headers.set('X-XSRF-TOKEN', decodeURIComponent(token));
    return request;
  },
};

/** Every answer says what time it is at the server. */
const now: Middleware = {
  onResponse({ response }) {
    const said = response.headers.get('Knot-Now');
    if (said) serverClock.set(said);
  },
};

/** What happens when the server says that nobody is signed in any more, whoever asked and for whatever. */
export const door = { signedOut: () => {} };
const signedOut: Middleware = {
  onResponse({ request, response }) {
    if (response.status === 401 && !new URL(request.url).pathname.startsWith('/api/session'))
      door.signedOut();
  },
};

export const api = createClient<paths>({ baseUrl: location.origin, fetch: fetchOrKept });
api.use(csrf, now, signedOut);

type Result<T> = { data?: T; error?: unknown; response: Response };

function problemOf(error: unknown, status: number): Problem {
  const body = (typeof error === 'object' && error !== null ? error : {}) as Record<string, unknown>;
  const fallback =
    status === 401
      ? 'You are signed out. Sign in again; what you typed is kept.'
      : status >= 500
        ? 'Something went wrong at the server. What you typed is kept; try again in a moment.'
        : 'The server did not understand.';
  return new Problem(
    status,
    String(body.code ?? 'http-' + status),
    String(body.detail ?? fallback),
    Array.isArray(body.errors) ? body.errors : [],
    body,
  );
}

/** Unwraps an answer, or throws the problem in it. */
export async function ok<T>(call: Promise<Result<T>>): Promise<T> {
  return (await okWithTag(call)).data;
}

/** Unwraps an answer together with its entity tag. */
export async function okWithTag<T>(call: Promise<Result<T>>): Promise<{ data: T; etag: string }> {
  let result: Result<T>;
  try {
    result = await call;
  } catch (e) {
    if (e instanceof DOMException && e.name === 'AbortError') throw e;
    throw new Problem(
      0,
      'unreachable',
      'Knot Tag cannot be reached. Is it still running? What you typed is kept.',
    );
  }
  if (!result.response.ok) throw problemOf(result.error, result.response.status);
  return { data: result.data as T, etag: result.response.headers.get('ETag') ?? '' };
}

/** Sends a file as it is; the description of the API can only call its bytes a text. */
export const bytes = (file: Blob, type = 'application/octet-stream') => ({
  headers: { 'Content-Type': type },
  body: file as Blob & string,
  bodySerializer: (body: unknown) => body as Blob,
});

/** A fresh key for a create, so that sending it twice makes one. */
export const freshKey = () => ({ 'Idempotency-Key': crypto.randomUUID() as string });

/**
 * After a refusal the next try is another request. After an answer that was lost on the way it is the same one: with the same key
 * the server gives the answer that it gave already, instead of taking its own record for somebody else's.
 */
export function keyAfter(key: { 'Idempotency-Key': string }, problem: Problem) {
  const lost = problem.status === 0 || problem.status >= 500 || problem.status === 408;
  if (!lost) key['Idempotency-Key'] = crypto.randomUUID();
}

export const asProblem = (e: unknown) =>
  e instanceof Problem ? e : new Problem(0, 'unexpected', e instanceof Error ? e.message : String(e));

/**
 * Every answer is told to whoever asked. Told only of what was read so far, a page that waits for two answers and looks at the
 * second one after the first has come would never hear of a second one that came before it.
 */
export const queryDefaults = { notifyOnChangeProps: 'all' } as const;
