<script lang="ts">
  import ChevronDown from '@lucide/svelte/icons/chevron-down';
  import { createQuery } from '@tanstack/svelte-query';
  import type { Schemas } from '../../api/client';
  import { sitesQuery } from '../../api/queries';
  import Dialog from '../../ui/Dialog.svelte';
  import { shut } from '../../ui/shut';
  import { at } from '../../router';
  import NewSite from './NewSite.svelte';

  let { siteId, session }: { siteId: number; session: Schemas['Session'] } = $props();
  const sites = createQuery(() => sitesQuery);
  let adding = $state(false);
  const name = $derived(sites.data?.find((s) => s.id === siteId)?.name ?? 'All sites');
</script>

<details class="dropdown" {@attach shut}>
  <summary class="quiet flex cursor-pointer list-none items-center gap-1 text-sm hover:text-base-content">
    {name}<ChevronDown size={14} aria-hidden="true" />
  </summary>
  <ul class="dropdown-content menu z-20 mt-1 w-72 rounded border border-base-300 bg-base-100 shadow-lg">
    <li><a href="/today" aria-current={!siteId}>Today, at all sites</a></li>
    {#each sites.data ?? [] as site (site.id)}
      <li>
        <a href={at(site.id, 'plan')} aria-current={site.id === siteId}
          ><span
            >{site.name}{#if site.client}<span class="quiet block text-xs">{site.client}</span>{/if}</span
          ><span class="quiet ml-auto font-mono">{site.endpoints}</span></a
        >
      </li>
    {/each}
    {#if session.role === 'LEAD'}<li><button onclick={() => (adding = true)}>Add a site</button></li>{/if}
  </ul>
</details>
<Dialog bind:open={adding} title="Add a site"><NewSite done={() => (adding = false)} /></Dialog>
