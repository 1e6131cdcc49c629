<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { logQuery } from '../api/queries';
  import { serverClock } from './now.svelte';
  import { siteClock } from './siteClock.svelte';
  import { shortName, when } from './time';
  import { at } from '../router';

  let { siteId, endpointId, most = 6 }: { siteId: number; endpointId?: number; most?: number } = $props();
  const log = createQuery(() => logQuery(siteId, endpointId));
  const lines = $derived((log.data ?? []).slice(0, most));
</script>

<section aria-label="What happened lately">
  <h2>Lately</h2>
  <p class="quiet text-sm">Times of the site, UTC{siteClock.offset === 'Z' ? '' : siteClock.offset}</p>
  <ol class="mt-2 grid gap-1 text-sm">
    {#each lines as line (line.id)}
      <li class="flex gap-3">
        <span class="quiet min-w-12 shrink-0 font-mono whitespace-nowrap"
          >{when(line.at, serverClock.millis)}</span
        >
        <span class="min-w-0"
          >{line.action}{#if line.endpoint && line.endpointId && !endpointId}:
            <a class="link" href={at(siteId, 'plan', line.endpointId)}>{line.endpoint}</a
            >{:else if line.about}: {line.about}{/if}
          <span class="quiet">by {shortName(line.person)}</span></span
        >
      </li>
    {:else}{#if log.data}<li class="quiet">Nothing yet.</li>{/if}{/each}
  </ol>
</section>
