<script lang="ts">
  import type { Snippet } from 'svelte';
  import type { Schemas } from '../../api/client';
  import Sights from '../../ui/Sights.svelte';
  import { at, type AtStation } from '../../router';
  import Board from './Board.svelte';
  import EndpointList from '../../ui/EndpointList.svelte';
  import KindDesk from './KindDesk.svelte';
  import Night from './Night.svelte';
  import RunbookPage from './RunbookPage.svelte';
  import Worksheets from './worksheet/Worksheets.svelte';

  let {
    siteId,
    place,
    endpoint,
    mayWork,
    role,
    visits,
  }: AtStation<'onboard'> & { role: Schemas['Session']['role']; visits: Snippet } = $props();
  const view = $derived('view' in place ? place.view : undefined);
  const links = $derived([
    { href: at(siteId, 'onboard'), name: 'Board' },
    { href: at(siteId, 'onboard', 'visits'), name: 'Visits' },
    { href: at(siteId, 'onboard', 'worksheets'), name: 'Worksheets' },
    { href: at(siteId, 'onboard', 'night'), name: 'Restarts at night' },
    { href: at(siteId, 'onboard', 'kinds'), name: 'Kinds' },
  ]);
</script>

{#if endpoint}
  {#key endpoint.data.id}<RunbookPage {endpoint} {mayWork} />{/key}
{:else}
  <Sights label="Sights of Onboard" {links} current={at(siteId, 'onboard', view)} />
  {#if view === 'visits'}{@render visits()}
  {:else if view === 'night'}<Night {siteId} {mayWork} />
  {:else if view === 'worksheets'}<Worksheets {siteId} {mayWork} />
  {:else if view === 'kinds'}<KindDesk lead={role === 'LEAD'} />
  {:else}
    <Board {siteId} />
    <EndpointList
      {siteId}
      station="onboard"
      title="All of them"
      wanted={['ONBOARD', 'REGISTER']}
      empty="Nothing waits to be set up. Plan an endpoint, and its runbook opens here."
    />
  {/if}
{/if}
