import type { Schemas } from '../api/client';

/** The tag of the endpoint that is being added, so that it hangs beside its form, and the host it was asked for. */
export const draft = $state<{ tag: Schemas['EndpointView'] | null; host: number | null }>({
  tag: null,
  host: null,
});
