import type { Schemas } from '../api/client';

/** The tag of the endpoint that is being added, so that it hangs beside its form. */
export const draft = $state<{ tag: Schemas['EndpointView'] | null }>({ tag: null });
