import { render } from '@testing-library/svelte';
import type { Component } from 'svelte';
import { vi } from 'vitest';
import Within from './Within.svelte';

type Answer = { status?: number; body?: unknown; etag?: string; after?: number };

/** Answers every request of a test by method and path, status 0 being no network, and keeps what was sent. */
export function answering(answers: Record<string, Answer>) {
  const sent: { call: string; body: unknown; ifMatch: string | null }[] = [];
  vi.stubGlobal(
    'fetch',
    vi.fn(async (request: Request) => {
      const call = request.method + ' ' + new URL(request.url, 'http://x').pathname;
      const text = await request.text();
      sent.push({ call, body: text ? JSON.parse(text) : null, ifMatch: request.headers.get('If-Match') });
      const answer = answers[call] ?? { status: 404, body: { code: 'none', detail: call } };
      if (answer.after) await new Promise((done) => setTimeout(done, answer.after));
      const status = answer.status ?? 200;
      if (status === 0) throw new TypeError('no network');
      return new Response(status === 204 ? null : JSON.stringify(answer.body ?? {}), {
        status,
        headers: { 'Content-Type': 'application/json', ETag: answer.etag ?? '"1"' },
      });
    }),
  );
  return sent;
}

/** Shows a component as it stands in the page, with a client for its queries. */
export const show = (of: unknown, props: Record<string, unknown>) =>
  render(Within, { of: of as Component<Record<string, unknown>>, given: props });
