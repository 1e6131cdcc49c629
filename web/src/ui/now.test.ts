import { afterEach, beforeEach, expect, it, vi } from 'vitest';

beforeEach(() => {
  vi.useFakeTimers({ now: Date.parse('2026-11-30T08:00:00Z') });
  vi.resetModules();
});
afterEach(() => vi.useRealTimers());

it.each([
  ['a browser that is an hour behind', '09:00:00', '09:00:10', 20, '09:00:20'],
  ['a demo on quick time', '08:00:00', '08:05:00', 12, '08:06:00'],
  ['a server that answers a little late', '08:00:00', '08:00:09', 20, '08:00:19'],
])('shows the time of the server: %s', async (_, first, afterTen, seconds, shown) => {
  const { serverClock } = await import('./now.svelte');
  vi.advanceTimersByTime(1_000);
  serverClock.set(`2026-11-30T${first}Z`);
  vi.advanceTimersByTime(500);
  serverClock.set(`2026-11-30T${first}Z`);
  vi.advanceTimersByTime(9_500);
  serverClock.set(`2026-11-30T${afterTen}Z`);
  vi.advanceTimersByTime((seconds - 10) * 1_000);
  expect(new Date(serverClock.millis).toISOString().slice(11, 19)).toBe(shown);
});
