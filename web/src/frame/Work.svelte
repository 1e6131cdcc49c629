<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { asProblem, type Schemas } from '../api/client';
  import { forgetAnswers } from '../api/answers.svelte';
  import { listen } from '../api/live';
  import { outbox, withUnsentLabel } from '../api/outbox.svelte';
  import { endpointQuery, sessionQuery, siteQuery, sitesQuery } from '../api/queries';
  import Practice from '../features/practice/Practice.svelte';
  import People from '../features/account/People.svelte';
  import SignIn from '../features/account/SignIn.svelte';
  import TagArrival from '../features/handover/TagArrival.svelte';
  import TakeSite from '../features/handover/TakeSite.svelte';
  import NewSite from '../features/plan/NewSite.svelte';
  import Today from '../features/today/Today.svelte';
  import { forgetTyped } from '../ui/kept.svelte';
  import { setSiteClock } from '../ui/siteClock.svelte';
  import Loading from '../ui/Loading.svelte';
  import Trouble from '../ui/Trouble.svelte';
  import { at, go, placeOf, route } from '../router';
  import Desk from './Desk.svelte';
  import FrontDesk from './FrontDesk.svelte';

  const client = useQueryClient();
  const session = createQuery(() => sessionQuery);
  const signedIn = $derived(!!session.data);
  $effect(() => (signedIn ? listen(client) : undefined));
  const sites = createQuery(() => ({ ...sitesQuery, enabled: !!session.data }));
  const params = $derived(
    route.params as { site?: string; station?: string; endpoint?: string; code?: string },
  );
  const siteId = $derived(Number(params.site ?? 0));
  const place = $derived(placeOf(params.station, params.endpoint));
  const chosen = $derived('endpoint' in place ? place.endpoint : 0);
  const endpoint = createQuery(() => ({
    ...endpointQuery(chosen),
    enabled: !!session.data && chosen > 0,
  }));
  const site = createQuery(() => ({ ...siteQuery(siteId), enabled: !!session.data && siteId > 0 }));
  $effect.pre(() => {
    if (site.data) setSiteClock(site.data);
  });
  const known = $derived(sites.data?.some((s) => s.id === siteId));
  /** Who was signed in here last. When the session ends the work stays where it is, and the sign-in comes over it. */
  let last = $state.raw<Schemas['Session'] | null>(null);
  $effect(() => {
    const now = session.data;
    // Somebody else's work is not shown: the page begins anew.
    if (now && last && now.name !== last.name) {
      forgetTyped();
      void forgetAnswers().then(() => location.reload());
    } else if (now) last = now;
  });
  const person = $derived(session.data ?? last);

  // Who has one site goes straight there; who has several sees first what waits at which.
  const today = $derived(route.pathname === '/today');
  const people = $derived(route.pathname === '/people');
  const practice = $derived(route.pathname === '/practice');
  $effect(() => {
    const only = sites.data?.length === 1 ? sites.data[0] : undefined;
    if (siteId || today || people || practice || params.code || !sites.data?.length) return;
    go(only ? at(only.id, 'plan') : '/today');
  });
</script>

{#if session.isPending}
  <div class="p-8"><Loading /></div>
{:else if session.error}
  <div class="p-8"><Trouble problem={asProblem(session.error)} again={() => session.refetch()} /></div>
{:else if !person}
  <SignIn />
{:else if params.code}
  <TagArrival code={params.code} />
{:else if sites.data && known}
  <Desk
    {siteId}
    {place}
    endpoint={chosen && endpoint.data ? withUnsentLabel(endpoint.data, outbox.of(chosen)) : undefined}
    trouble={chosen && endpoint.error ? asProblem(endpoint.error) : null}
    session={person}
  />
{:else if sites.data && siteId}
  <main class="p-8">
    <h1>There is no such site</h1>
    <p class="mt-2"><a class="link" href="/today">Go to the sites</a></p>
  </main>
{:else if people && person.role === 'LEAD'}
  <FrontDesk session={person}><People me={person.name} /></FrontDesk>
{:else if people}
  <FrontDesk session={person}><h1>Only a lead sees the people</h1></FrontDesk>
{:else if practice && person.role !== 'OFFICE'}
  <FrontDesk session={person}><Practice /></FrontDesk>
{:else if today && sites.data?.length}
  <FrontDesk session={person}><Today /></FrontDesk>
{:else if sites.data?.length === 0}
  <main class="mx-auto max-w-xl p-8">
    <h1>Start with a site</h1>
    {#if person.role === 'LEAD'}
      <p class="quiet mt-2 mb-6">
        A site is one shop, office or clinic. Its endpoints, addresses and log stay together.
      </p>
      <NewSite />
      <TakeSite />
    {:else}
      <p class="mt-2">There is none yet. A lead adds the first one.</p>
    {/if}
  </main>
{:else if sites.error}
  <div class="p-8"><Trouble problem={asProblem(sites.error)} again={() => sites.refetch()} /></div>
{:else}
  <div class="p-8"><Loading /></div>
{/if}
{#if person && !session.data && !session.isPending}
  <div
    class="fixed inset-0 z-50 overflow-y-auto bg-base-100/95"
    role="dialog"
    aria-modal="true"
    aria-label="Your session has ended"
  >
    <p class="mx-auto mt-8 max-w-md px-4 text-center font-semibold" role="alert">
      Your session has ended. What you typed is kept: sign in again as {person.name}, and go on.
    </p>
    <SignIn />
  </div>
{/if}
