<script lang="ts">
  import Printer from '@lucide/svelte/icons/printer';
  import { createQuery } from '@tanstack/svelte-query';
  import { api, asProblem, ok } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import Loading from '../../ui/Loading.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { dayOf, hourOf } from '../../ui/time';
  import { at, go } from '../../router';
  import { sealsQuery } from './queries';

  /** How what travels was sealed, by night and case: for the office, and for whoever opens the cases in the morning. */
  let { siteId, mayWork }: { siteId: number; mayWork: boolean } = $props();
  const nights = createQuery(() => sealsQuery(siteId));
  const change = useChange(() => [['site', siteId], ['endpoint']]);

  async function unpack(id: number) {
    const done = await change.run(() =>
      ok(api.POST('/api/endpoints/{id}/unpack', { params: { path: { id } } })),
    );
    if (done) await go(at(siteId, 'onboard', id));
  }
</script>

<div class="flex flex-wrap items-center gap-3">
  <h1 class="mr-auto">Packed away</h1>
  <button class="no-print btn btn-outline btn-primary btn-sm" onclick={() => print()}
    ><Printer size={16} aria-hidden="true" />Print the report</button
  >
</div>
<Trouble problem={change.problem} />
{#if nights.error}
  <Trouble problem={asProblem(nights.error)} again={() => nights.refetch()} />
{:else if !nights.data}
  <Loading />
{:else}
  {#each nights.data as night, n (night.night)}
    <h2 class="mt-5">Night of {dayOf(night.night)}</h2>
    <table class="mt-1 w-full max-w-4xl text-sm">
      <thead
        ><tr class="border-b-2 border-base-content text-left"
          ><th class="py-1 pr-4">Case</th><th class="pr-4">What is in it</th><th class="pr-4">Seals</th><th
            class="pr-4">Sealed</th
          ><th class="no-print"></th></tr
        ></thead
      >
      <tbody>
        {#each night.cases as c (c.endpoint + c.at)}
          <tr class="border-b border-base-300">
            <td class="py-1.5 pr-4 font-mono">{c.caseNumber}</td>
            <td class="pr-4"><a class="link" href={at(siteId, 'onboard', c.endpoint)}>{c.name}</a></td>
            <td class="pr-4 font-mono">{c.seals.join('  ')}</td>
            <td class="pr-4">{hourOf(c.at)} by {c.by}</td>
            <td class="no-print text-right"
              >{#if mayWork && n === 0}<button
                  class="btn btn-ghost btn-sm"
                  disabled={change.busy}
                  onclick={() => unpack(c.endpoint)}>Unpack it again</button
                >{/if}</td
            >
          </tr>
        {/each}
      </tbody>
    </table>
  {:else}
    <p class="mt-2">Nothing has been sealed yet. What is packed away at Onboard comes here.</p>
  {/each}
{/if}
