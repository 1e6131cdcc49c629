<script lang="ts">
  import Timer from '@lucide/svelte/icons/timer';
  import { createQuery } from '@tanstack/svelte-query';
  import { runningQuery } from '../api/queries';
  import { serverClock } from '../ui/now.svelte';
  import { shut } from '../ui/shut';
  import { minutes } from '../ui/time';
  import { at } from '../router';
  import { alarm } from './alarm.svelte';

  let { siteId }: { siteId: number } = $props();
  const running = createQuery(() => runningQuery);
  const waits = $derived(running.data ?? []);
  const ripe = $derived(waits.filter((w) => w.pace === 'LATE' || w.pace === 'TOO_LONG').length);
  $effect(() => {
    alarm.hear(waits);
  });
</script>

{#if waits.length}
  <details class="dropdown dropdown-end" {@attach shut}>
    <summary
      class="btn btn-ghost px-2 btn-sm"
      aria-label="{waits.length} waits running{ripe ? `, ${ripe} to look at` : ''}"
    >
      <Timer size={16} aria-hidden="true" class="text-accent" /><span class="font-mono">{waits.length}</span>
      {#if ripe}<span class="max-[700px]:sr-only">look at {ripe}</span>{/if}
    </summary>
    <div class="dropdown-content z-20 mt-1 w-80 rounded border border-base-300 bg-base-100 p-2 shadow-lg">
      <ul>
        {#each waits as wait (wait.endpointId + wait.step)}
          <li>
            <a
              class="block rounded p-2 no-underline hover:bg-base-200"
              href={at(wait.siteId, 'onboard', wait.endpointId)}
            >
              <span class="block font-semibold">{wait.endpoint}</span>
              <span class="quiet block text-sm"
                >{wait.step}: {minutes(serverClock.minutesSince(wait.startedAt))} of usually {minutes(
                  wait.usual,
                )}{wait.siteId === siteId ? '' : ', at ' + wait.site}</span
              >
              {#if wait.pace === 'TOO_LONG'}<span class="block text-sm text-error"
                  >Longer than it ever takes.</span
                >{/if}
            </a>
          </li>
        {/each}
      </ul>
      <label class="flex items-center gap-2 border-t border-base-300 p-2 text-sm"
        ><input
          type="checkbox"
          class="size-4"
          checked={alarm.on}
          onchange={(e) => void alarm.set(e.currentTarget.checked)}
        />Sound and notify when one is ready</label
      >
    </div>
  </details>
{/if}
