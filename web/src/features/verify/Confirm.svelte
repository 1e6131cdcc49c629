<script lang="ts">
  import Sights from '../../ui/Sights.svelte';
  import { at, type AtStation } from '../../router';
  import EndpointList from '../../ui/EndpointList.svelte';
  import ConfirmPage from './ConfirmPage.svelte';
  import SweepPage from './SweepPage.svelte';
  import Together from './Together.svelte';

  let { siteId, place, endpoint, mayWork }: AtStation<'confirm'> = $props();
  const view = $derived('view' in place ? place.view : undefined);
  const links = $derived([
    { href: at(siteId, 'confirm'), name: 'One by one' },
    { href: at(siteId, 'confirm', 'together'), name: 'Together' },
    { href: at(siteId, 'confirm', 'sweep'), name: 'Who is there' },
  ]);
</script>

{#if endpoint}
  {#key endpoint.data.id}<ConfirmPage {endpoint} {mayWork} />{/key}
{:else}
  <Sights label="Sights of Confirm" {links} current={at(siteId, 'confirm', view)} />
  {#if view === 'sweep'}<SweepPage {siteId} {mayWork} />
  {:else if view === 'together'}<Together {siteId} {mayWork} />
  {:else}
    <EndpointList
      {siteId}
      station="confirm"
      title="Confirm"
      wanted={['CONFIRM']}
      empty="Nothing waits to be proved. What has been set up comes here."
    />
  {/if}
{/if}
