<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { asProblem } from '../../api/client';
  import { boardQuery } from '../../api/queries';
  import Knot from '../../ui/Knot.svelte';
  import Loading from '../../ui/Loading.svelte';
  import { minutes } from '../../ui/time';
  import Trouble from '../../ui/Trouble.svelte';
  import { at } from '../../router';

  /** Several endpoints and one pair of hands: one line says what to do now, the rest what comes and what runs. */
  let { siteId }: { siteId: number } = $props();
  const board = createQuery(() => boardQuery(siteId));
  const now = $derived(board.data?.lines.find((l) => l.state === 'NOW'));
  const next = $derived(board.data?.lines.filter((l) => l.state === 'NEXT') ?? []);
  const runs = $derived(board.data?.lines.filter((l) => l.state === 'RUNS') ?? []);
  const soonest = $derived(runs.toSorted((a, b) => a.minutes - b.minutes)[0]);
</script>

{#snippet rest(lines: typeof next, label: string)}
  <ul aria-label={label}>
    {#each lines as l (l.endpoint)}
      <li>
        <a
          class="flex items-center gap-3 border-b border-base-300 px-1 py-2 no-underline hover:bg-base-200"
          href={at(siteId, 'onboard', l.endpoint)}
          data-board={l.state}
        >
          <Knot state={l.status} size={24} />
          <span class="min-w-0 flex-1"
            ><span class="font-semibold">{l.name}</span>
            <span class="quiet text-sm">{l.title}</span></span
          >
          <span class="quiet text-sm whitespace-nowrap"
            >{l.state === 'RUNS' ? 'look in ' + minutes(l.minutes) : minutes(l.left) + ' to go'}</span
          >
        </a>
      </li>
    {/each}
  </ul>
{/snippet}

<h1>Onboard</h1>
{#if board.error}
  <Trouble problem={asProblem(board.error)} again={() => board.refetch()} />
{:else if !board.data}
  <Loading />
{:else if board.data.lines.length}
  <section class="mt-3 border-l-4 border-accent pl-4" aria-label="Do this now" aria-live="polite">
    {#if now}
      <p class="quiet text-sm">Do this now</p>
      <h2 class="text-2xl leading-tight">{now.name}: {now.title}</h2>
      <p class="mt-1">{[now.place, now.because].filter(Boolean).join('. ')}</p>
      <a class="btn mt-3 btn-primary" href={at(siteId, 'onboard', now.endpoint)}>Go there</a>
    {:else}
      <p class="quiet text-sm">Nothing wants your hands</p>
      <h2 class="text-2xl leading-tight">
        {soonest ? `Look at ${soonest.name} in ${minutes(soonest.minutes)}` : 'All is set up'}
      </h2>
    {/if}
  </section>
  <div class="mt-6 grid gap-x-10 gap-y-6 lg:grid-cols-2">
    {#if next.length}<section aria-label="After that">
        <h2 class="text-base">After that</h2>
        {@render rest(next, 'After that')}
      </section>{/if}
    {#if runs.length}<section aria-label="Runs by itself">
        <h2 class="text-base">Runs by itself</h2>
        {@render rest(runs, 'Runs by itself')}
      </section>{/if}
  </div>
{/if}
