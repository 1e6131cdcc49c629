<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { asProblem, type Schemas } from '../../api/client';
  import Loading from '../../ui/Loading.svelte';
  import { serverClock } from '../../ui/now.svelte';
  import { dayTimeIn, minutes } from '../../ui/time';
  import Trouble from '../../ui/Trouble.svelte';
  import NoticeLine from './NoticeLine.svelte';
  import { ago, DO, whereTo } from './notices';
  import SitesToday from './SitesToday.svelte';
  import { todayQuery } from './queries';

  /** The day at a glance, over all sites: what comes first, what after that, what runs, and who is expected where. */
  const today = createQuery(() => todayQuery);
  const d = $derived(today.data);
  const zone = (n: Schemas['NoticeView']) => d?.sites.find((s) => s.siteId === n.siteId)?.zone ?? 'UTC';
  const until = (iso: string) =>
    'in ' + minutes(Math.max(1, Math.ceil((Date.parse(iso) - serverClock.millis) / 60_000)));
</script>

{#if today.error && !d}
  <Trouble problem={asProblem(today.error)} again={() => today.refetch()} />
{:else if !d}
  <Loading />
{:else}
  {@const first = d.first}
  {#each d.concerns as c (c.title)}
    <section
      aria-label={c.title}
      class="mb-4 border-l-4 px-5 py-3 {c.stops
        ? 'border-error bg-error/10'
        : 'border-warning bg-warning/10'}"
    >
      <h2>{c.title}</h2>
      <p class="text-sm">{c.detail}</p>
    </section>
  {/each}
  <section aria-label="What comes first" class="border-l-4 border-accent bg-base-200 px-5 py-4">
    {#if first && first.what !== 'RUNS'}
      <h1 class="text-3xl">{first.title}</h1>
      <p class="mt-1">
        <span class="font-semibold">{first.site}{first.who ? `, ${first.who}` : ''}.</span>
        {first.detail}
      </p>
      <a class="btn mt-3 btn-primary" href={whereTo(first)}>{DO[first.what]}</a>
    {:else if first}
      <h1 class="text-3xl">Nothing waits for your hands</h1>
      <p class="mt-1">
        {first.title} at {first.site} is the next to look at, {until(first.at)}. {first.detail}
      </p>
      <a class="btn mt-3 btn-primary" href={whereTo(first)}>{DO[first.what]}</a>
    {:else}
      <h1 class="text-3xl">Nothing waits for you</h1>
      <p class="mt-1">No wait runs, nothing is due, and whatever was proved still holds.</p>
    {/if}
  </section>
  <div class="mt-6 grid gap-x-10 gap-y-6 {d.now.length ? 'lg:grid-cols-[4fr_5fr]' : ''}">
    {#if d.now.length}
      <section aria-label="After that">
        <h2>After that</h2>
        <ul class="mt-1">
          {#each d.now as n, i (i)}<NoticeLine {n} when={ago(serverClock.minutesSince(n.at))} />{/each}
        </ul>
      </section>
    {/if}
    <div class="grid content-start gap-y-6">
      {#if d.running.length}
        <section aria-label="Runs by itself">
          <h2>Runs by itself</h2>
          <ul class="mt-1">
            {#each d.running as n, i (i)}<NoticeLine {n} when={until(n.at)} />{/each}
          </ul>
        </section>
      {/if}
      {#if d.ahead.length}
        <section aria-label="Visits ahead">
          <h2>Visits ahead</h2>
          <ul class="mt-1">
            {#each d.ahead as n, i (i)}<NoticeLine {n} when={dayTimeIn(n.at, zone(n))} />{/each}
          </ul>
        </section>
      {/if}
      <section aria-label="Sites" class="overflow-x-auto">
        <h2>Sites</h2>
        <SitesToday sites={d.sites} />
      </section>
    </div>
  </div>
{/if}
