<script lang="ts">
  import type { Schemas } from '../../api/client';
  import Knot from '../../ui/Knot.svelte';
  import { dayTime } from '../../ui/time';
  import { at } from '../../router';

  /** Who signed off, when, and whether that still holds. */
  let {
    endpoint: e,
    line,
    failed,
  }: { endpoint: Schemas['EndpointView']; line: Schemas['VerificationView']; failed: boolean } = $props();
  /** Signed off with a grade, and something it rested on has changed; older sign-offs had no grade. */
  const loose = $derived(!!line.signedOff && line.missing !== '');
</script>

<div class="mt-6">
  <p class="flex items-center gap-3">
    <Knot state={failed ? 'FAILED' : loose ? 'ACTIVE' : 'PASSED'} size={40} /><span class="text-lg font-bold"
      >Signed off by {e.confirmedBy}</span
    >
  </p>
  <p class="quiet">
    {e.confirmedAt ? dayTime(e.confirmedAt) + '.' : ''}
    {#if failed}A check has failed since: it no longer holds.
    {:else if loose}Something was changed since: part of it must be seen again.
    {:else if line.signedOff}{line.signedOff.grade}.{/if}
  </p>
  {#if e.station === 'HANDOVER'}<p class="mt-2">
      <a class="btn btn-primary" href={at(e.siteId, 'handover', e.id)}>On to the hand-over</a>
    </p>{/if}
</div>
