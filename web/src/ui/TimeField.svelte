<script lang="ts">
  import { untrack } from 'svelte';
  import { api, ok, type Schemas } from '../api/client';
  import { serverClock } from './now.svelte';
  import ReadField from './ReadField.svelte';
  import { siteClock } from './siteClock.svelte';
  import { dayOf, timeOf } from './time';

  /** A day, a time of day or both, typed as the site writes them and read back in words. */
  let {
    label,
    value = $bindable(''),
    form,
    error,
    required = false,
    disabled = false,
    autofocus = false,
    onchange,
  }: {
    label: string;
    value?: string;
    form: Schemas['TimeReadRequest']['form'];
    error?: string;
    required?: boolean;
    disabled?: boolean;
    autofocus?: boolean;
    onchange?: () => void;
  } = $props();
  const known = untrack(() => value);
  const day = $derived(dayOf(new Date(serverClock.millis).toISOString().slice(0, 10)));
  const hint = $derived(
    'Such as ' + (form === 'DAY' ? day : form === 'TIME' ? timeOf('07:30') : `${day}, ${timeOf('14:05')}`),
  );
  const read = (text: string, signal: AbortSignal) =>
    ok(
      api.POST('/api/sites/{siteId}/time/read', {
        params: { path: { siteId: siteClock.id } },
        body: { text, form },
        signal,
      }),
    );
</script>

<ReadField {label} bind:value {read} {error} {hint} {required} {disabled} {known} {autofocus} {onchange} />
