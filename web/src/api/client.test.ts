import { describe, expect, it, vi } from 'vitest';
import { answering } from '../test/answers';
import { api, asProblem, door, freshKey, keyAfter, ok, okWithTag, Problem } from './client';

const answer = (status: number, error?: unknown, headers = {}) =>
  Promise.resolve({
    data: status < 300 ? { id: 7 } : undefined,
    error,
    response: new Response(null, { status, headers }),
  });
const caught = async (call: Promise<unknown>) => {
  try {
    await call;
  } catch (e) {
    return e as Problem;
  }
  throw new Error('nothing was thrown');
};

describe('answers and problems', () => {
  it('unwraps what came, with its version', async () => {
    expect(await ok(answer(200))).toEqual({ id: 7 });
    expect(await okWithTag(answer(200, undefined, { ETag: '"3"' }))).toEqual({
      data: { id: 7 },
      etag: '"3"',
    });
  });

  it('tells that nobody is signed in any more, whoever asked; a wrong password at the door is none of it', async () => {
    answering({
      'GET /api/sites': { status: 401 },
      'POST /api/mac/read': { status: 401 },
      'GET /api/session': { status: 401 },
      'POST /api/session': { status: 401 },
    });
    door.signedOut = vi.fn();
    await api.GET('/api/session');
    await api.POST('/api/session', { body: { name: 'x', password: 'y' } });
    expect(door.signedOut).not.toHaveBeenCalled();
    await api.GET('/api/sites');
    await api.POST('/api/mac/read', { body: { text: 'x' } });
    expect(door.signedOut).toHaveBeenCalledTimes(2);
    vi.unstubAllGlobals();
  });

  it('names the field that a problem is about', async () => {
    const errors = [
      { pointer: '/address', message: '10.44.16.54 is taken by Till 4.' },
      { pointer: '/mac', message: 'Known.' },
    ];
    const problem = await caught(
      ok(answer(409, { code: 'address-taken', detail: 'Taken.', errors, nextFree: '10.44.16.55' })),
    );
    expect(problem).toBeInstanceOf(Problem);
    expect([problem.status, problem.code, problem.message]).toEqual([409, 'address-taken', 'Taken.']);
    expect([problem.field('address'), problem.field('mac'), problem.field('name')]).toEqual([
      errors[0]?.message,
      'Known.',
      undefined,
    ]);
    expect(problem.more.nextFree).toBe('10.44.16.55');
  });

  it.each([
    [401, undefined, 'http-401', 'You are signed out. Sign in again; what you typed is kept.'],
    [
      500,
      'not json',
      'http-500',
      'Something went wrong at the server. What you typed is kept; try again in a moment.',
    ],
    [400, 'not json', 'http-400', 'The server did not understand.'],
    [
      412,
      { code: 'changed-meanwhile', detail: 'Somebody changed this.' },
      'changed-meanwhile',
      'Somebody changed this.',
    ],
  ])('says %i in words', async (status, body, code, message) => {
    const problem = await caught(ok(answer(status, body)));
    expect([problem.code, problem.message]).toEqual([code, message]);
  });

  it('says when nothing answers, and lets a cancelled question go', async () => {
    expect((await caught(ok(Promise.reject(new TypeError('refused'))))).code).toBe('unreachable');
    const cancelled = new DOMException('gone', 'AbortError');
    expect(await caught(ok(Promise.reject(cancelled)))).toBe(cancelled);
    expect(asProblem(new Error('odd')).message).toBe('odd');
  });

  it.each([
    [0, true],
    [503, true],
    [409, false],
    [422, false],
  ])('after %i the same key goes on: %s', (status, same) => {
    const key = freshKey();
    const before = key['Idempotency-Key'];
    keyAfter(key, new Problem(status, 'x', 'x'));
    expect(key['Idempotency-Key'] === before).toBe(same);
  });
});
