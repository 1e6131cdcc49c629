<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { searchParams } from 'sv-router';
  import { asProblem } from '../../../api/client';
  import { outbox, withUnsentSheets } from '../../../api/outbox.svelte';
  import { endpointQuery } from '../../../api/queries';
  import { at } from '../../../router';
  import Knot from '../../../ui/Knot.svelte';
  import Loading from '../../../ui/Loading.svelte';
  import Trouble from '../../../ui/Trouble.svelte';
  import { filledQuery, worksheetsQuery, type Owner } from './queries';
  import Worksheet from './Worksheet.svelte';

  /** All worksheets, for the site or for one endpoint of it. */
  let { siteId, mayWork }: { siteId: number; mayWork: boolean } = $props();
  const endpointId = Number(searchParams.get('endpoint')) || 0;
  const owner = $derived<Owner>(endpointId ? { endpoint: endpointId } : { site: siteId });
  const all = createQuery(() => worksheetsQuery);
  const filled = createQuery(() => filledQuery(owner));
  const endpoint = createQuery(() => endpointQuery(endpointId));
  let key = $state(String(searchParams.get('sheet') ?? ''));
  const sheet = $derived(all.data?.find((w) => w.key === key) ?? all.data?.[0]);
  const here = $derived(withUnsentSheets(filled.data ?? [], outbox.of(endpointId)));
  const of = (k: string) => here.find((f) => f.sheet === k);
  const failed = $derived(all.error ?? filled.error);
  let form = $state<ReturnType<typeof Worksheet>>();
  let said = $state('');

  async function keep(event: SubmitEvent) {
    event.preventDefault();
    const taken = await form?.save();
    said = taken && sheet && !of(sheet.key)?.waits ? 'Kept.' : '';
  }
</script>

<h1>Worksheets</h1>
<p class="quiet mt-1">
  {#if endpoint.data}For <a class="link" href={at(siteId, 'onboard', endpointId)}>{endpoint.data.data.name}</a
    >. What you keep here stands at its steps too.
  {:else}For the site as a whole. What one device needs is kept with its runbook.{/if}
</p>
{#if failed}
  <Trouble problem={asProblem(failed)} again={() => filled.refetch()} />
{:else if !all.data || !filled.data || !sheet}
  <Loading />
{:else}
  <div class="mt-4 grid gap-x-8 gap-y-4 lg:grid-cols-[230px_minmax(0,1fr)]">
    <ul aria-label="All worksheets" class="max-lg:flex max-lg:flex-wrap">
      {#each all.data as w (w.key)}
        {@const there = of(w.key)}
        <li>
          <button
            class="flex w-full items-center gap-2 px-2 py-1.5 text-left hover:bg-base-200 {w.key === sheet.key
              ? 'bg-base-200 font-semibold'
              : ''}"
            aria-current={w.key === sheet.key ? 'true' : undefined}
            onclick={() => ((key = w.key), (said = ''))}
            ><Knot
              state={there?.waits
                ? 'ACTIVE'
                : there?.version
                  ? there.holds
                    ? 'PASSED'
                    : 'FAILED'
                  : 'PENDING'}
              size={20}
            />{w.title}</button
          >
        </li>
      {/each}
    </ul>
    {#key sheet.key + of(sheet.key)?.version}
      <form class="min-w-0" onsubmit={keep}>
        <h2>{sheet.title}</h2>
        <p class="quiet mt-1 mb-4 max-w-3xl">{sheet.about}</p>
        <Worksheet
          bind:this={form}
          {sheet}
          filled={of(sheet.key)}
          {owner}
          device={endpoint.data?.data}
          {mayWork}
        />
        {#if mayWork}
          <div class="mt-4 flex flex-wrap items-center gap-3">
            <button class="btn btn-primary">Keep these figures</button>
            <span role="status">{said}</span>
          </div>
        {/if}
      </form>
    {/key}
  </div>
{/if}
