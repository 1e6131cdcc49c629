<script lang="ts">
  import Timer from '@lucide/svelte/icons/timer';
  import { createQuery } from '@tanstack/svelte-query';
  import { runningQuery } from '../api/queries';
  import { serverClock } from '../ui/now.svelte';
  import { minutes } from '../ui/time';
  import { at } from '../router';

  let { siteId }: { siteId: number } = $props();
  const running = createQuery(() => runningQuery(siteId));
  $effect(() => {
    const first = running.data?.[0];
    if (first) serverClock.set(first.now);
  });
</script>

{#if running.data?.length}
  <details class="dropdown dropdown-end">
    <summary class="btn btn-ghost px-2 btn-sm" aria-label="{running.data.length} waits running">
      <Timer size={16} aria-hidden="true" class="text-accent" /><span class="font-mono"
        >{running.data.length}</span
      >
    </summary>
    <ul class="dropdown-content z-20 mt-1 w-80 rounded border border-base-300 bg-base-100 p-2 shadow-lg">
      {#each running.data as wait (wait.endpointId + wait.step)}
        <li>
          <a
            class="block rounded p-2 no-underline hover:bg-base-200"
            href={at(siteId, 'onboard', wait.endpointId)}
          >
            <span class="block font-semibold">{wait.endpoint}</span>
            <span class="quiet block text-sm"
              >{wait.step}: {minutes(serverClock.minutesSince(wait.startedAt))} of usually {minutes(
                wait.usual,
              )}</span
            >
          </a>
        </li>
      {/each}
    </ul>
  </details>
{/if}
