<script lang="ts">
  import { siteClock } from '../../ui/siteClock.svelte';
  import { fullTime } from '../../ui/time';
  import { serverClock } from '../../ui/now.svelte';

  /** The site's own date and time, ticking, to hold beside the device's. */
  const shown = $derived(fullTime(serverClock.millis));
</script>

<p class="mb-3">
  <span class="quiet block text-sm">Here it is now ({siteClock.zone})</span>
  <span class="font-mono text-3xl font-semibold" role="timer">{shown}</span>
</p>
