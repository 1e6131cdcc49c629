<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { boardQuery, conflictsQuery, dueQuery, runningQuery } from '../api/queries';
  import Lately from '../ui/Lately.svelte';
  import { serverClock } from '../ui/now.svelte';
  import { minutes } from '../ui/time';
  import { at, entryAt, type StationPath } from '../router';

  /** What is worth having while no tag hangs here: what to do now, what runs, what is due, what happened. */
  let { siteId, station }: { siteId: number; station: StationPath } = $props();
  const board = createQuery(() => boardQuery(siteId));
  const running = createQuery(() => runningQuery);
  const due = createQuery(() => dueQuery(siteId));
  const conflicts = createQuery(() => ({ ...conflictsQuery(siteId), enabled: station === 'plan' }));
  const now = $derived(board.data?.lines.find((l) => l.state === 'NOW'));
  const waits = $derived((running.data ?? []).filter((w) => w.siteId === siteId));
  const today = $derived(due.data?.items.filter((i) => i.due) ?? []);
  const broken = $derived(conflicts.data?.filter((c) => c.severity === 'BROKEN').length ?? 0);
</script>

<div class="grid gap-6 border-l border-base-300 pl-6">
  {#if now && station !== 'onboard'}
    <section aria-label="Next for your hands">
      <h2>Next for your hands</h2>
      <p class="mt-1">
        <a class="link font-semibold" href={at(siteId, 'onboard', now.endpoint)}>{now.name}: {now.title}</a>
      </p>
      {#if now.because}<p class="quiet text-sm">{now.because}</p>{/if}
    </section>
  {/if}
  {#if broken}
    <p>
      <a class="link font-semibold" href={at(siteId, 'plan', 'mend')}
        >{broken === 1 ? 'One thing does' : `${broken} things do`} not work as planned</a
      >
    </p>
  {/if}
  {#if waits.length && station !== 'onboard'}
    <section aria-label="Runs by itself">
      <h2>Runs by itself</h2>
      <ul class="mt-1 grid gap-1 text-sm">
        {#each waits.slice(0, 5) as w (w.endpointId + w.step)}
          <li>
            <a class="link" href={at(siteId, 'onboard', w.endpointId)}>{w.endpoint}</a>: {w.step},
            {minutes(serverClock.minutesSince(w.startedAt))} of usually {minutes(w.usual)}
          </li>
        {/each}
      </ul>
    </section>
  {/if}
  {#if today.length}
    <section aria-label="Due today">
      <h2>Due today</h2>
      <ul class="mt-1 grid gap-1 text-sm">
        {#each today.slice(0, 5) as i (i.key)}
          <li><a class="link" href={entryAt(siteId, i.registryId, i.endpointId)}>{i.title}</a></li>
        {/each}
      </ul>
      {#if today.length > 5}<a class="link text-sm" href={at(siteId, 'register', 'due')}>All {today.length}</a
        >{/if}
    </section>
  {/if}
  {#if station !== 'plan'}
    <Lately {siteId} most={8} />
  {/if}
</div>
