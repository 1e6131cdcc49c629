import { beforeEach, describe, expect, it, vi } from 'vitest';
import { alarm } from './alarm.svelte';

const said: { title: string; body?: string }[] = [];
const told = Object.assign(
  vi.fn(function (title: string, options?: { body?: string }) {
    said.push({ title, body: options?.body });
  }),
  { permission: 'granted' },
);
const wait = (pace: 'TOO_EARLY' | 'USUAL' | 'LATE' | 'TOO_LONG', endpointId = 1) => ({
  endpointId,
  endpoint: 'Till 3',
  step: 'First start',
  pace,
  lookFor: 'a welcome screen',
});

describe('the alarm of waits', () => {
  beforeEach(async () => {
    said.length = 0;
    vi.stubGlobal('Notification', told);
    await alarm.set(true);
    alarm.hear([]);
  });

  it('tells once when a wait becomes ready, and once when it takes too long', () => {
    for (const pace of ['TOO_EARLY', 'USUAL', 'LATE', 'LATE', 'TOO_LONG', 'TOO_LONG'] as const)
      alarm.hear([wait(pace)]);
    expect(said.map((s) => s.body)).toEqual([
      'First start should be ready. Look for: a welcome screen.',
      'First start takes longer than it ever does.',
    ]);
  });

  it('tells of each wait by itself, and of none when it is switched off', async () => {
    alarm.hear([wait('LATE', 1), wait('USUAL', 2)]);
    alarm.hear([wait('LATE', 1), wait('LATE', 2)]);
    expect(said).toHaveLength(2);
    await alarm.set(false);
    alarm.hear([wait('TOO_LONG', 1)]);
    expect(said).toHaveLength(2);
  });
});
