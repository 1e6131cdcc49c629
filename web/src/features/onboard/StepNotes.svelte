<script lang="ts">
  import type { Schemas } from '../../api/client';
  import type { Unsent } from '../../api/outbox.svelte';

  /** What else there is to know of a step: that a colleague did it just now, or that it was done here and is not sent yet. */
  let {
    others,
    noted,
    then,
    goOn,
  }: {
    others: Schemas['StepView'] | null;
    noted?: Unsent;
    /** The step that comes next. */
    then?: string;
    goOn: () => void;
  } = $props();
</script>

{#if others}
  <p class="caution mb-4" role="status">
    {others.by} did this step just now. What you typed here is kept on this page.
    <button class="link" onclick={goOn}>Go on{then ? ': ' + then : ''}</button>
  </p>
{/if}
{#if noted}
  <p class="caution mb-4" role="status">
    {noted.state === 'waits'
      ? 'Noted on this device, and not sent yet. Whether it holds is judged when it is sent.'
      : 'What you noted here without network is not settled yet: it waits at “settle” at the top.'}
  </p>
{/if}
