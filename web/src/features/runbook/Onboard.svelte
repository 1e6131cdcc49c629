<script lang="ts">
  import type { Schemas } from '../../api/client';
  import Board from './Board.svelte';
  import EndpointList from './EndpointList.svelte';
  import RunbookPage from './RunbookPage.svelte';

  let {
    siteId,
    endpoint,
    mayWork,
  }: {
    siteId: number;
    endpoint?: { data: Schemas['EndpointView']; etag: string };
    mayWork: boolean;
  } = $props();
</script>

{#if endpoint}
  {#key endpoint.data.id}<RunbookPage {endpoint} {mayWork} />{/key}
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
