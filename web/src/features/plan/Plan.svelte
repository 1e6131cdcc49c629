<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { asProblem } from '../../api/client';
  import { siteQuery } from '../../api/queries';
  import Loading from '../../ui/Loading.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import type { AtStation } from '../../router';
  import Intake from './Intake.svelte';
  import ImportRegister from '../../ui/ImportRegister.svelte';
  import SegmentForm from './SegmentForm.svelte';
  import Sheet from './Sheet.svelte';
  import ManyEndpoints from './ManyEndpoints.svelte';
  import MendList from './MendList.svelte';
  import PlanViews from './PlanViews.svelte';
  import Renumber from './Renumber.svelte';
  import SeriesList from './SeriesList.svelte';
  import TapeDesk from './TapeDesk.svelte';
  import Wiring from './Wiring.svelte';

  let { siteId, place, endpoint, mayWork }: AtStation<'plan'> = $props();
  const site = createQuery(() => siteQuery(siteId));
  const view = $derived('view' in place ? place.view : undefined);
  const chosen = $derived('isNew' in place ? 'new' : 'endpoint' in place ? place.endpoint : 0);
</script>

{#if site.error}
  <Trouble problem={asProblem(site.error)} again={() => site.refetch()} />
{:else if !site.data}
  <Loading />
{:else if !site.data.segments.length && view !== 'sheet'}
  <h1>{site.data.name} has no segment yet</h1>
  <p class="quiet mt-2 mb-6 max-w-prose">
    A segment is one subnet: its prefix, gateway, resolvers, and what the router hands out by itself. Type it
    in, or bring in a register file that knows it.
  </p>
  {#if mayWork}
    <SegmentForm {siteId} />
    <h2 class="mt-10 mb-3">Or bring in a register file</h2>
    <ImportRegister {siteId} />
  {/if}
{:else}
  <PlanViews {siteId} {view} />
  {#if view === 'mend'}<MendList {siteId} {mayWork} />
  {:else if view === 'series'}<SeriesList {siteId} {mayWork} />
  {:else if view === 'wiring'}<Wiring {siteId} {mayWork} />
  {:else if view === 'sheet'}<Sheet {siteId} {mayWork} />
  {:else if view === 'intake'}<Intake {siteId} segments={site.data.segments} {mayWork} />
  {:else if view === 'renumber'}<Renumber {siteId} segments={site.data.segments} {mayWork} />
  {:else if view === 'many' && mayWork}<ManyEndpoints {siteId} segments={site.data.segments} />
  {:else}<TapeDesk site={site.data} {chosen} {endpoint} {mayWork} />{/if}
{/if}
