<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { asProblem } from '../../api/client';
  import Knot from '../../ui/Knot.svelte';
  import Loading from '../../ui/Loading.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { dayAt } from '../../ui/time';
  import { at } from '../../router';
  import ImpactVisit from './ImpactVisit.svelte';
  import { recheckQuery } from './queries';

  /** Whose proof is old enough to look again, here and where a visit is worth most. */
  let { siteId, mayWork }: { siteId: number; mayWork: boolean } = $props();
  const listed = createQuery(() => recheckQuery(siteId));
  const lines = $derived(listed.data?.lines ?? []);
  const due = $derived(lines.filter((l) => l.overdue));
  const later = $derived(lines.filter((l) => !l.overdue));
  const elsewhere = $derived((listed.data?.sites ?? []).filter((s) => s.siteId !== siteId));
</script>

<h1>Check again</h1>
{#if listed.error}
  <Trouble problem={asProblem(listed.error)} again={() => listed.refetch()} />
{:else if !listed.data}
  <Loading />
{:else}
  <p class="mt-1 text-lg" role="status">
    {lines.length === 0
      ? 'Nobody is signed off here yet, so no proof can age.'
      : due.length === 0
        ? 'No proof here is old enough to look again.'
        : due.length === 1
          ? 'One proof here is due to be renewed.'
          : `${due.length} proofs here are due to be renewed.`}
  </p>
  <p class="quiet mt-1 max-w-3xl text-sm">
    A proof says what was so on its day. What a till or an office works through is looked at each quarter,
    what others reach each half year, the rest each year; sooner or later by what was found of its kind at all
    sites.
  </p>
  {#if elsewhere.length}
    <p class="mt-3 max-w-3xl">
      {due.length && listed.data.sites[0]?.siteId === siteId
        ? 'A visit is worth most here; then'
        : 'A visit is worth most'}
      at {#each elsewhere.slice(0, 5) as s, i (s.siteId)}{i ? ', ' : ''}<a
          class="link font-semibold"
          href={at(s.siteId, 'audit', 'recheck')}>{s.site}</a
        >
        ({s.overdue} due){/each}{elsewhere.length > 5 ? ` and ${elsewhere.length - 5} more sites` : ''}.
    </p>
  {/if}
  <div class="mt-4 grid gap-x-10 gap-y-6 lg:grid-cols-[minmax(0,2fr)_minmax(0,1fr)]">
    <div class="min-w-0">
      {#if due.length}
        <ul aria-label="Due to be checked again">
          {#each due as l (l.endpointId)}
            <li class="flex items-start gap-3 border-b border-base-300 py-3">
              <Knot state={l.chance === 100 ? 'FAILED' : 'ACTIVE'} size={26} />
              <div class="min-w-0 flex-1">
                <p class="text-[17px]">
                  <a class="link font-semibold" href={at(siteId, 'confirm', l.endpointId)}>{l.name}</a
                  >{l.place ? `, ${l.place}` : ''}
                </p>
                <p>{l.says}</p>
                <p class="quiet text-sm">
                  {l.chance === 100
                    ? `Fails since ${dayAt(l.due)}`
                    : `${l.chance} % that something has changed since; due since ${dayAt(l.due)}`}
                </p>
              </div>
            </li>
          {/each}
        </ul>
      {/if}
      {#if later.length}
        <h2 class="mt-5 font-bold">Later</h2>
        <table class="mt-1 w-full text-left" aria-label="Later">
          <thead class="quiet text-sm">
            <tr
              ><th class="py-1 pr-4">Device</th><th class="pr-4">Chance of a change</th><th>Look again by</th
              ></tr
            >
          </thead>
          <tbody>
            {#each later as l (l.endpointId)}
              <tr class="border-b border-base-300 align-top">
                <td class="py-1.5 pr-4"
                  ><a class="link" href={at(siteId, 'confirm', l.endpointId)}>{l.name}</a></td
                >
                <td class="py-1.5 pr-4">{l.chance || 'under 1'} %</td>
                <td class="py-1.5">{dayAt(l.due)}</td>
              </tr>
            {/each}
          </tbody>
        </table>
      {/if}
    </div>
    {#if mayWork && listed.data.errands.length}
      <ImpactVisit {siteId} name="Prove again what is due" errands={listed.data.errands} />
    {/if}
  </div>
{/if}
