<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import Sights from '../../ui/Sights.svelte';
  import { at, type AtStation, type HandoverView } from '../../router';
  import EndpointReady from './EndpointReady.svelte';
  import Logbook from './Logbook.svelte';
  import PackedAway from './PackedAway.svelte';
  import Packs from './Packs.svelte';
  import { readinessQuery, sealsQuery } from './queries';
  import SiteOpenings from './SiteOpenings.svelte';
  import SiteReady from './SiteReady.svelte';
  import Tags from './Tags.svelte';

  let { siteId, place, endpoint, mayWork, lead }: AtStation<'handover'> & { lead: boolean } = $props();
  const view = $derived('view' in place ? place.view : undefined);
  const ready = createQuery(() => readinessQuery(siteId));
  const seals = createQuery(() => sealsQuery(siteId));
  const links = $derived(
    (
      [
        [undefined, 'What is left', ready.data?.acts.length],
        ['openings', 'Openings', ready.data?.openings.length],
        ['tags', 'Tags and labels', undefined],
        ['packs', 'Packs', undefined],
        ...(seals.data?.length || view === 'packed' ? [['packed', 'Packed away', undefined]] : []),
        ['logbook', 'Logbook', undefined],
      ] as [HandoverView | undefined, string, number | undefined][]
    ).map(([path, name, count]) => ({ href: at(siteId, 'handover', path), name, count })),
  );
</script>

{#if endpoint}
  {#key endpoint.data.id}<EndpointReady {siteId} id={endpoint.data.id} {mayWork} {lead} />{/key}
{:else}
  <Sights label="Sights of Hand over" {links} current={at(siteId, 'handover', view)} />
  {#if view === 'tags'}<Tags {siteId} {mayWork} {lead} />
  {:else if view === 'openings'}<SiteOpenings {siteId} />
  {:else if view === 'packed'}<PackedAway {siteId} {mayWork} />
  {:else if view === 'packs'}<Packs {siteId} {mayWork} {lead} />
  {:else if view === 'logbook'}<Logbook {siteId} />
  {:else}<SiteReady {siteId} {mayWork} {lead} />{/if}
{/if}
