<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { logQuery } from '../../api/queries';
  import { serverClock } from '../../ui/now.svelte';
  import { shortName, when } from '../../ui/time';
  import { at } from '../../router';

  let {
    siteId,
    zone,
    offset,
    endpointId,
    most = 6,
  }: { siteId: number; zone: string; offset: string; endpointId?: number; most?: number } = $props();
  const log = createQuery(() => logQuery(siteId));
  const lines = $derived(
    (log.data ?? []).filter((l) => !endpointId || l.endpointId === endpointId).slice(0, most),
  );
</script>

<section aria-label="What happened lately">
  <h2>Lately</h2>
  <p class="quiet text-sm">Times of the site, UTC{offset === 'Z' ? '' : offset}</p>
  <ol class="mt-2 grid gap-1 text-sm">
    {#each lines as line (line.id)}
      <li class="flex gap-3">
        <span class="quiet min-w-12 shrink-0 font-mono whitespace-nowrap"
          >{when(line.at, zone, serverClock.millis)}</span
        >
        <span class="min-w-0"
          >{line.action}{#if line.endpoint && line.endpointId && !endpointId}:
            <a class="link" href={at(siteId, 'plan', line.endpointId)}>{line.endpoint}</a>{/if}
          <span class="quiet">by {shortName(line.person)}</span></span
        >
      </li>
    {:else}<li class="quiet">Nothing yet.</li>{/each}
  </ol>
</section>
