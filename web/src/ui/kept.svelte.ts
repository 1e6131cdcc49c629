const PREFIX = 'knot-typed-';

/**
 * What was typed and is not yet kept on record stays in this tab: over a look at another page, a reload, a session that ends.
 * Call it while a component is made.
 */
export function kept<T extends Record<string, unknown>>(
  key: string,
  initial: T,
): { value: T; forget: () => void } {
  const name = PREFIX + key;
  const first = JSON.stringify(initial);
  const value = $state({ ...initial, ...stored<T>(name) });
  $effect(() => {
    const now = JSON.stringify(value);
    if (now === first) sessionStorage.removeItem(name);
    else sessionStorage.setItem(name, now);
  });
  return {
    value: value as T,
    forget() {
      sessionStorage.removeItem(name);
      for (const field of Object.keys(value)) if (!(field in initial)) Reflect.deleteProperty(value, field);
      Object.assign(value, initial);
    },
  };
}

/** Forgets all of it, before somebody else sits down here. */
export function forgetTyped() {
  for (const key of Object.keys(sessionStorage)) if (key.startsWith(PREFIX)) sessionStorage.removeItem(key);
}

function stored<T>(name: string): Partial<T> {
  try {
    return JSON.parse(sessionStorage.getItem(name) ?? '{}') as Partial<T>;
  } catch {
    return {};
  }
}
