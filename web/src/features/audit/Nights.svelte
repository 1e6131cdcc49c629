<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, asProblem, ok } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import Loading from '../../ui/Loading.svelte';
  import Progress from '../../ui/Progress.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { dayOf } from '../../ui/time';
  import EarlierNights from './EarlierNights.svelte';
  import MorningMail from './MorningMail.svelte';
  import NightHours from './NightHours.svelte';
  import NightReport from './NightReport.svelte';
  import { nightsQuery } from './queries';

  /** What goes on every night by itself, and what it found. */
  let { siteId, mayWork, lead }: { siteId: number; mayWork: boolean; lead: boolean } = $props();
  const all = createQuery(() => nightsQuery(siteId));
  const change = useChange(() => [['site', siteId]]);
  let chosen = $state(0);
  const nights = $derived(all.data?.nights ?? []);
  const ended = $derived(nights.filter((n) => n.endedAt));
  const shown = $derived(ended.find((n) => n.id === chosen) ?? ended[0]);
  const running = $derived(all.data?.running[0]);
  const lookNow = () =>
    change.run(() => ok(api.POST('/api/sites/{siteId}/nights', { params: { path: { siteId } } })));
</script>

<div class="flex flex-wrap items-start justify-between gap-3">
  <h1>Every night</h1>
  {#if mayWork && all.data && !running}<button
      class="btn btn-outline btn-primary btn-sm"
      onclick={lookNow}
      disabled={change.busy}>Make these looks now</button
    >{/if}
</div>
<Trouble problem={change.problem} />
{#if all.error}
  <Trouble problem={asProblem(all.error)} again={() => all.refetch()} />
{:else if !all.data}
  <Loading />
{:else}
  <p class="mt-1 max-w-3xl">
    While nobody works there, Knot Tag looks who is there, checks what is signed off, tries the services and
    holds dropped lists against the record. In the morning you read what is new.
  </p>
  {#if all.data.setBack}<p class="caution mt-3">
      This machine’s clock stands before looks that were made already. Nothing is looked at until it is set
      right.
    </p>{/if}
  {#if all.data.missed.length}<p class="caution mt-3">
      Nobody looked in {all.data.missed.length === 1 ? 'the night' : 'the nights'} to {all.data.missed
        .slice(-3)
        .map(dayOf)
        .join(', ')}{all.data.missed.length > 3 ? ` and in ${all.data.missed.length - 3} before` : ''}: Knot
      Tag did not run then, or not long enough.
    </p>{/if}
  <div class="mt-4 grid gap-x-10 gap-y-8 lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
    <div class="min-w-0">
      {#if running}
        <section aria-label="Goes on" class="mb-5">
          <Progress
            value={running.made}
            of={running.of || 1}
            label={running.of
              ? `Look ${Math.min(running.made + 1, running.of)} of ${running.of}: ${running.now}`
              : 'Waits for its turn'}
          />
        </section>
      {/if}
      {#if shown}
        <NightReport {siteId} nightId={shown.id} />
      {:else if !running}
        <p class="text-lg">No report yet.</p>
      {/if}
    </div>
    <div class="grid min-w-0 content-start gap-y-6">
      <NightHours {siteId} view={all.data} {mayWork} />
      {#if ended.length > 1}<EarlierNights nights={ended} bind:chosen />{/if}
      {#if lead}<MorningMail />{/if}
    </div>
  </div>
{/if}
