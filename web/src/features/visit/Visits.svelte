<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { searchParams } from 'sv-router';
  import { asProblem, type Schemas } from '../../api/client';
  import Loading from '../../ui/Loading.svelte';
  import { dayTime } from '../../ui/time';
  import Trouble from '../../ui/Trouble.svelte';
  import { at, go, visitAt } from '../../router';
  import { visitsQuery } from './queries';
  import VisitForm from './VisitForm.svelte';
  import VisitPage from './VisitPage.svelte';

  /** Visits of a site: those ahead, the one that runs, those that are over; or the one that is chosen. */
  let { siteId, mayWork }: { siteId: number; mayWork: boolean } = $props();
  const visits = createQuery(() => visitsQuery(siteId));
  const chosen = $derived(Number(searchParams.get('visit')) || 0);
  let adding = $state(false);
  const STATES: Record<Schemas['VisitHead']['state'], string> = {
    PLANNED: 'ahead',
    RUNNING: 'running now',
    OVER: 'over',
  };

  function open(id: number) {
    adding = false;
    go(id ? visitAt(siteId, id) : at(siteId, 'onboard', 'visits'));
  }
</script>

{#if chosen}
  {#key chosen}<VisitPage id={chosen} {siteId} {mayWork} kept={open} back={() => open(0)} />{/key}
{:else if adding}
  <h1>A new visit</h1>
  <VisitForm {siteId} kept={open} leave={() => (adding = false)} />
{:else}
  <div class="flex flex-wrap items-center gap-3">
    <h1 class="mr-auto">Visits</h1>
    {#if mayWork}<button class="btn btn-primary btn-sm" onclick={() => (adding = true)}>Plan a visit</button
      >{/if}
  </div>
  {#if visits.error}
    <Trouble problem={asProblem(visits.error)} again={() => visits.refetch()} />
  {:else if !visits.data}
    <Loading />
  {:else if visits.data.length}
    <ul class="mt-3 max-w-3xl">
      {#each visits.data as v (v.head.id)}
        <li class="border-b border-base-300 py-2">
          <button class="w-full text-left hover:underline" onclick={() => open(v.head.id)}>
            <span class="font-semibold">{v.head.name}</span>
            <span class="quiet text-sm">{STATES[v.head.state]}</span>
          </button>
          <span class="quiet block text-sm"
            >{dayTime(v.head.begins)}, {v.units === 1 ? 'one endpoint' : `${v.units} endpoints`}, {v.people.join(
              ', ',
            )}</span
          >
        </li>
      {/each}
    </ul>
  {:else}
    <p class="mt-3 max-w-xl">
      No visit is planned. Say who comes, when the shop opens and what is to be set up: who does what when,
      and how early it can be done at best, is worked out.
    </p>
  {/if}
{/if}
