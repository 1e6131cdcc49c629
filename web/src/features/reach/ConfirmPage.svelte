<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { api, asProblem, freshKey, ok, type Problem, type Schemas } from '../../api/client';
  import { roundQuery, runbookQuery, siteQuery } from '../../api/queries';
  import Lately from '../plan/Lately.svelte';
  import Knot from '../../ui/Knot.svelte';
  import Loading from '../../ui/Loading.svelte';
  import { clockTime, dayTime } from '../../ui/time';
  import Steps from '../../ui/Steps.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { at } from '../../router';
  import Causes from './Causes.svelte';
  import SignOff from './SignOff.svelte';

  let { endpoint, mayWork }: { endpoint: { data: Schemas['EndpointView']; etag: string }; mayWork: boolean } =
    $props();
  const TITLES = {
    ANSWERS: 'The address answers',
    WHO_ANSWERS: 'Who answers there',
    PORT_OPEN: 'Its service port is open',
    SERVICE: 'The service gives its serial',
    PARTNER: "The partner's side reaches it",
  };
  const client = useQueryClient();
  const e = $derived(endpoint.data);
  const latest = createQuery(() => roundQuery(e.id));
  const site = createQuery(() => siteQuery(e.siteId));
  const book = createQuery(() => runbookQuery(e.id));
  let asking = $state(false);
  let problem = $state<Problem | null>(null);
  const round = $derived(latest.data?.round ?? null);
  const zone = $derived(site.data?.zone ?? 'UTC');
  const failed = $derived(round?.results.find((r) => r.knot === 'FRAYED'));
  const steps = $derived(
    (Object.keys(TITLES) as (keyof typeof TITLES)[]).map((key) => {
      const result = round?.results.find((r) => r.check === key);
      const tried = result && result.knot !== 'OPEN';
      return {
        key,
        title: TITLES[key],
        knot: asking ? ('HALF_DRAWN' as const) : (result?.knot ?? ('OPEN' as const)),
        note: asking ? 'asking…' : (result?.seen ?? 'not tried yet'),
        meta:
          tried && !asking
            ? `${clockTime(result.at, zone)}, took ${result.millis} ms, from ${result.vantage}`
            : undefined,
        bad: !asking && result?.knot === 'FRAYED',
      };
    }),
  );
  const headline = $derived(
    asking
      ? 'Asking…'
      : !round
        ? 'Not proved yet'
        : failed
          ? `${e.name} does not reach its service`
          : round.holds
            ? 'All checks hold'
            : 'Not proved yet',
  );

  async function check() {
    asking = true;
    problem = null;
    try {
      const answer = await ok(
        api.POST('/api/endpoints/{id}/rounds', { params: { path: { id: e.id }, header: freshKey() } }),
      );
      client.removeQueries({ queryKey: ['endpoint', e.id, 'diagnosis'] });
      client.setQueryData(['endpoint', e.id, 'round'], answer);
    } catch (error) {
      problem = asProblem(error);
    } finally {
      asking = false;
    }
    await client.invalidateQueries({ queryKey: ['endpoint', e.id], exact: true });
    await client.invalidateQueries({ queryKey: ['site', e.siteId] });
  }
</script>

{#if latest.error}
  <Trouble problem={asProblem(latest.error)} again={() => latest.refetch()} />
{:else if !latest.data}
  <Loading />
{:else}
  <h1 aria-live="polite">{headline}</h1>
  <p class="quiet mt-1">
    {round
      ? `Last checked ${dayTime(round.at, zone)} by ${round.by}.`
      : 'Five checks, from the address up to the real service.'}
  </p>
  <div class="mt-5 grid gap-8 md:grid-cols-[minmax(0,17rem)_minmax(0,1fr)]">
    <Steps {steps} current={failed?.check ?? null} label="Checks" />
    <div>
      {#if failed && !asking && round}
        {#key round.id}<Causes endpointId={e.id} {mayWork} />{/key}
      {/if}
      {#if mayWork}
        <button
          class="btn mt-4 {round && !failed ? 'btn-outline' : ''} btn-primary"
          data-tie
          disabled={asking}
          onclick={check}>{round ? 'Check again' : 'Run the checks'} <kbd>Space</kbd></button
        >
      {/if}
      <Trouble {problem} />
      {#if book.data?.data.handOverWaits.length}
        <section class="caution mt-6" aria-label="The hand-over waits">
          <h2 class="text-base">The hand-over waits</h2>
          <ul>
            {#each book.data.data.handOverWaits as wait (wait)}<li>{wait}</li>{/each}
          </ul>
          <a class="link" href={at(e.siteId, 'onboard', e.id)}>Close it at Onboard</a>
        </section>
      {/if}
      {#if e.confirmedAt}
        <div class="mt-6">
          <p class="flex items-center gap-3">
            <Knot state={failed ? 'FRAYED' : 'TIGHT'} size={40} /><span class="text-lg font-bold"
              >Signed off by {e.confirmedBy}</span
            >
          </p>
          <p class="quiet">
            {dayTime(e.confirmedAt, zone)}{failed ? '. The latest checks fail: it no longer holds.' : ''}
          </p>
        </div>
      {:else if round?.holds && !asking && mayWork}
        <SignOff {endpoint} {round} />
      {/if}
    </div>
  </div>
  {#if site.data}
    <div class="mt-10 max-w-2xl">
      <Lately siteId={e.siteId} {zone} offset={site.data.zoneNow} endpointId={e.id} />
    </div>
  {/if}
{/if}
