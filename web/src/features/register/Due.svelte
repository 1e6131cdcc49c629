<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { asProblem } from '../../api/client';
  import { dueQuery } from '../../api/queries';
  import Loading from '../../ui/Loading.svelte';
  import { siteClock } from '../../ui/siteClock.svelte';
  import { serverClock } from '../../ui/now.svelte';
  import { when } from '../../ui/time';
  import Trouble from '../../ui/Trouble.svelte';
  import { entryAt } from '../../router';
  import CalendarFeed from './CalendarFeed.svelte';
  import GuestStay from './GuestStay.svelte';
  import VisitOrders from './VisitOrders.svelte';

  let { siteId, mayWork }: { siteId: number; mayWork: boolean } = $props();
  const due = createQuery(() => dueQuery(siteId));
  const today = $derived(due.data?.items.filter((i) => i.due) ?? []);
  const later = $derived(due.data?.items.filter((i) => !i.due) ?? []);
</script>

{#snippet list(items: typeof today, label: string)}
  <ul class="mt-1" aria-label={label}>
    {#each items as item (item.key)}
      <li class="border-b border-base-300 py-1.5">
        <a class="font-semibold hover:underline" href={entryAt(siteId, item.registryId, item.endpointId)}
          >{item.title}</a
        >
        {#if !item.due}<span class="quiet text-sm">from {when(item.at, serverClock.millis)}</span>{/if}
        {#if item.detail}<span class="quiet block text-sm">{item.detail}</span>{/if}
      </li>
    {/each}
  </ul>
{/snippet}

<div class="flex flex-wrap items-center gap-3">
  <h1 class="mr-auto">What is due</h1>
  <p class="quiet text-sm">Times of the site, {siteClock.zone}</p>
</div>
{#if due.error}
  <Trouble problem={asProblem(due.error)} again={() => due.refetch()} />
{:else if !due.data}
  <Loading />
{:else}
  <div class="mt-4 grid gap-x-12 gap-y-8 lg:grid-cols-2">
    <div class="grid content-start gap-8">
      <section aria-label="Today">
        <h2>Today</h2>
        {#if today.length}{@render list(today, 'To do today')}{:else}<p class="mt-1">
            Nothing is due today.
          </p>{/if}
      </section>
      {#if later.length}
        <section aria-label="Later">
          <h2>Later, and what waits for others</h2>
          {@render list(later, 'To do later')}
        </section>
      {/if}
      <CalendarFeed {siteId} />
    </div>
    <div class="grid content-start gap-8">
      {#key siteClock.day}<VisitOrders {siteId} due={due.data} {mayWork} />{/key}
      {#if mayWork}<GuestStay {siteId} />{/if}
    </div>
  </div>
{/if}
