<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { asProblem, type Schemas } from '../../api/client';
  import Loading from '../../ui/Loading.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { at } from '../../router';
  import Hung from './Hung.svelte';
  import LetPass from './LetPass.svelte';
  import { readinessQuery } from './queries';
  import { whereTo } from './words';

  /** The shortest list to a site that is ready, one line for each act that does for several. */
  let { siteId, mayWork, lead }: { siteId: number; mayWork: boolean; lead: boolean } = $props();
  const ready = createQuery(() => readinessQuery(siteId));
  const MOST = 6;
  let whole = $state<string[]>([]);
  let passing = $state('');
  const key = (a: Schemas['SiteActView']) => a.what + a.title;
  const shown = (a: Schemas['SiteActView']) =>
    whole.includes(key(a)) ? a.endpoints : a.endpoints.slice(0, MOST);
  const tagsOf = (a: Schemas['SiteActView']) =>
    `${at(siteId, 'handover', 'tags')}?of=${a.endpoints.map((e) => e.id).join(',')}`;
  const all = $derived(ready.data?.endpoints.length ?? 0);
  const handed = $derived(ready.data?.endpoints.filter((e) => e.handedOverAt).length ?? 0);
  const toHand = $derived((ready.data?.ready ?? 0) - handed);
</script>

<h1>What is left</h1>
{#if ready.error}
  <Trouble problem={asProblem(ready.error)} again={() => ready.refetch()} />
{:else if !ready.data}
  <Loading />
{:else if !ready.data.endpoints.length}
  <p class="mt-2">Nothing stands at this site yet. What was proved comes here, to be handed over.</p>
{:else}
  <p class="mt-1 text-lg" role="status">
    {#if handed === 0}
      {ready.data.ready === all ? 'All' : `${ready.data.ready} of`} {all} are ready to be handed over.
    {:else}
      {handed === all ? 'All' : `${handed} of`}
      {all} are handed over{toHand ? `, and ${toHand} more ready to be` : ''}.
    {/if}
    {#if toHand}<a class="link font-semibold" href={at(siteId, 'handover', 'packs')}>Make the pack</a>{/if}
  </p>
  <ol class="mt-4 max-w-4xl">
    {#each ready.data.acts as act (key(act))}
      <li class="border-b border-base-300 py-3" data-act={act.what}>
        <div class="flex flex-wrap items-baseline gap-x-3">
          <h2 class="mr-auto text-[17px] font-semibold">{act.title}</h2>
          {#if act.what === 'TAG_PRINT' || act.what === 'TAG_WRONG'}
            <a class="btn btn-outline btn-primary btn-sm" href={tagsOf(act)}
              >Print {act.endpoints.length === 1 ? 'it' : `these ${act.endpoints.length}`}</a
            >
          {:else if act.what === 'TAG_HANG' && mayWork}
            <Hung {siteId} ids={act.endpoints.map((e) => e.id)} />
          {:else if act.what === 'PROVE' && act.endpoints.length > 1}
            <a class="btn btn-outline btn-primary btn-sm" href={at(siteId, 'confirm')}>To Confirm</a>
          {/if}
          {#if lead && act.canPass}<button
              class="btn btn-ghost btn-sm"
              aria-expanded={passing === key(act)}
              onclick={() => (passing = passing === key(act) ? '' : key(act))}
              >Let {act.endpoints.length === 1 ? 'it' : 'them'} pass</button
            >{/if}
        </div>
        <p class="mt-1 flex flex-wrap gap-x-4 gap-y-1">
          {#each shown(act) as e (e.id)}<a
              class="link"
              href={act.what.startsWith('TAG')
                ? at(siteId, 'handover', e.id)
                : whereTo(siteId, act.what, e.id)}>{e.name}</a
            >{/each}
          {#if act.endpoints.length > MOST && !whole.includes(key(act))}<button
              class="quiet link"
              onclick={() => whole.push(key(act))}>and {act.endpoints.length - MOST} more</button
            >{/if}
        </p>
        {#if passing === key(act)}
          <LetPass
            {siteId}
            acts={act.endpoints.map((e) => ({ endpointId: e.id, key: e.key }))}
            done={() => (passing = '')}
          />
        {/if}
      </li>
    {:else}
      <li class="py-3">Nothing is left to do but what a lead lets pass.</li>
    {/each}
  </ol>
{/if}
