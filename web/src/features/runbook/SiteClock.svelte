<script lang="ts">
  import { serverClock } from '../../ui/now.svelte';

  /** The site's own date and time, ticking, to hold beside the device's. */
  let { zone }: { zone: string } = $props();
  const shown = $derived(
    new Intl.DateTimeFormat('sv-SE', { dateStyle: 'short', timeStyle: 'medium', timeZone: zone }).format(
      serverClock.millis,
    ),
  );
</script>

<p class="mb-3">
  <span class="quiet block text-sm">Here it is now ({zone})</span>
  <span class="font-mono text-3xl font-semibold" role="timer">{shown}</span>
</p>
