<script lang="ts">
  import type { Schemas } from '../../api/client';
  import EndpointList from '../runbook/EndpointList.svelte';
  import ConfirmPage from './ConfirmPage.svelte';

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
  {#key endpoint.data.id}<ConfirmPage {endpoint} {mayWork} />{/key}
{:else}
  <EndpointList
    {siteId}
    station="confirm"
    title="Confirm"
    wanted={['CONFIRM']}
    empty="Nothing waits to be proved. What has been set up comes here."
  />
{/if}
