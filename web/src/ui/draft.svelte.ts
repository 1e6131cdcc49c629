import type { Schemas } from '../api/client';

/** While a device's own label is asked for, what is on record of it is not shown to the end: one would copy it. */
export const veil = $state({ drawn: false });

/** Returns a MAC or serial without its last four letters and digits. */
export const withoutTail = (text: string) => {
  let left = 4;
  return [...text]
    .reverse()
    .map((c) => (left > 0 && /[0-9A-Za-z]/.test(c) ? (left--, '•') : c))
    .reverse()
    .join('');
};

/** The tag of the endpoint that is being added, so that it hangs beside its form, the host it was asked for, and whom it takes in. */
export const draft = $state<{
  tag: Schemas['EndpointView'] | null;
  host: number | null;
  stranger: { mac: string; segmentId: number } | null;
}>({ tag: null, host: null, stranger: null });
