import { flushSync } from 'svelte';
import { describe, expect, it } from 'vitest';
import { madeFrom } from './madeFrom.svelte';

/** A form that was opened when a place called Counter stood on record, in version 1. */
function opened(typed: Record<string, string> = {}) {
  let record = $state({ value: { name: 'Counter', walk: '1' }, etag: '"1"' });
  const form = $state({ ...record.value, reason: '', ...typed });
  const made = madeFrom(
    form,
    () => record.value,
    () => record.etag,
  );
  return {
    form,
    made,
    /** What somebody else makes of it meanwhile. */
    stands: (value: { name: string; walk: string }, etag: string) => {
      record = { value, etag };
      flushSync();
    },
  };
}

describe('a form that somebody else changes meanwhile', () => {
  it('goes on from the newest version while only other things were changed', () => {
    const { form, made, stands } = opened({ name: 'Front counter' });
    stands({ name: 'Counter', walk: '1' }, '"2"');
    expect([made.changed, made.etag, form.name]).toEqual([false, '"2"', 'Front counter']);
  });

  it('keeps both when the same was changed, and names the version that was seen until one is chosen', () => {
    const { form, made, stands } = opened({ name: 'Front counter', reason: 'moved' });
    stands({ name: 'Till counter', walk: '4' }, '"2"');
    expect([made.changed, made.etag]).toEqual([true, '"1"']);
    expect(form).toEqual({ name: 'Front counter', walk: '1', reason: 'moved' });
    made.turn();
    expect(form).toEqual({ name: 'Till counter', walk: '4', reason: 'moved' });
    form.reason = 'moved again';
    made.turn();
    expect(form).toEqual({ name: 'Front counter', walk: '1', reason: 'moved again' });
    expect(made.etag).toBe('"1"');
    made.choose();
    expect([made.changed, made.etag, form.name]).toEqual([false, '"2"', 'Front counter']);
    stands({ name: 'Third', walk: '4' }, '"3"');
    expect([made.changed, made.etag]).toEqual([true, '"2"']);
    made.turn();
    made.choose();
    expect([form.name, made.etag, made.showsTheirs]).toEqual(['Third', '"3"', false]);
  });
});
