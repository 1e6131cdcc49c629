import { flushSync } from 'svelte';
import { beforeEach, describe, expect, it } from 'vitest';
import { forgetTyped, kept } from './kept.svelte';

beforeEach(() => sessionStorage.clear());

/** As a component that is made; what is returned second is its end. */
function shown<T extends Record<string, unknown>>(key: string, initial: T) {
  let made!: ReturnType<typeof kept<T>>;
  const leave = $effect.root(() => {
    made = kept(key, initial);
  });
  flushSync();
  return [made, leave] as const;
}

describe('what was typed and is not on record yet', () => {
  it('is there again after a look at another page, and gone once it is kept or another person comes', () => {
    const [first, leave] = shown('label-7', { mac: '', serial: '' });
    first.value.mac = '00:00:5E:00:53:2B';
    flushSync();
    leave();
    const [again, leaveAgain] = shown('label-7', { mac: '', serial: '' });
    expect(again.value.mac).toBe('00:00:5E:00:53:2B');
    expect(shown('label-8', { mac: '' })[0].value.mac).toBe('');
    again.forget();
    leaveAgain();
    expect(sessionStorage).toHaveLength(0);
    const [other] = shown('label-9', { mac: '' });
    other.value.mac = 'x';
    flushSync();
    sessionStorage.setItem('something-else', '1');
    forgetTyped();
    expect(Object.keys(sessionStorage)).toEqual(['something-else']);
  });

  it('begins anew from what cannot be read', () => {
    sessionStorage.setItem('knot-typed-label-7', '{');
    expect(shown('label-7', { mac: 'a' })[0].value.mac).toBe('a');
  });
});
