<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import Loading from '../../ui/Loading.svelte';
  import TextField from '../../ui/TextField.svelte';
  import TimeField from '../../ui/TimeField.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { hourOf, typedMoment } from '../../ui/time';
  import { asProblem, type Schemas } from '../../api/client';
  import { searchParams } from 'sv-router';
  import { at, go, pastAt } from '../../router';
  import { pastQuery } from './queries';

  /** Where a device has been, who has had an address, and who was there at a past time. */
  let { siteId }: { siteId: number } = $props();
  const asked = $derived({
    of: searchParams.get('of')?.toString() ?? '',
    at: searchParams.get('at')?.toString() ?? '',
  });
  let of = $state('');
  let when = $state('');
  $effect(() => {
    of = asked.of;
    when = asked.at;
  });
  const told = createQuery(() => pastQuery(siteId, asked));
  const problem = $derived(told.error ? asProblem(told.error) : undefined);
  const atField = $derived(problem?.field('of') ?? problem?.field('at'));

  type Stretch = Schemas['StretchView'];
  const who = (s: Stretch) => s.name || (s.mac ? 'Not on record' : 'No MAC in that list');
  function span(s: { first: string; last: string }) {
    const first = typedMoment(s.first);
    const last = typedMoment(s.last);
    if (first === last) return first;
    const sameDay = first.split(',')[0] === last.split(',')[0];
    return `${first} to ${sameDay ? hourOf(s.last) : last}`;
  }
</script>

<h1>Where it was</h1>
<form
  class="mt-3 flex max-w-4xl flex-wrap items-start gap-3"
  onsubmit={(ev) => {
    ev.preventDefault();
    go(pastAt(siteId, { of: of.trim(), at: when.trim() }));
  }}
>
  <div class="min-w-56 flex-1">
    <TextField label="A MAC, an address or a port" bind:value={of} error={problem?.field('of')} />
  </div>
  <div class="min-w-56 flex-1">
    <TimeField
      label="At a past time, or leave it empty"
      form="MOMENT"
      bind:value={when}
      error={problem?.field('at')}
    />
  </div>
  <button class="btn mt-6 btn-primary">Look back</button>
</form>
{#if !asked.of && !asked.at}
  <p class="mt-4 max-w-2xl">
    Every sweep, pasted table, lease list, check and reading of a switch is kept: where each device was, from
    when to when. Nights that change nothing are one line.
  </p>
{:else if problem}
  {#if !atField}<Trouble {problem} again={() => told.refetch()} />{/if}
{:else if !told.data}
  <Loading />
{:else}
  <p class="mt-4 max-w-4xl text-lg" role="status">{told.data.says}</p>
  {#if told.data.stretches.length}
    <table class="mt-3 w-full max-w-5xl text-left" aria-label="What was seen">
      <thead class="quiet text-sm max-sm:hidden">
        <tr
          ><th class="py-1 pr-4">Who</th><th class="pr-4">MAC</th><th class="pr-4">Address</th><th>Seen</th
          ></tr
        >
      </thead>
      <tbody>
        {#each told.data.stretches as s (s.mac + s.address + s.source + s.first + s.site)}
          <tr class="border-b border-base-300 align-top max-sm:grid max-sm:py-2">
            <td class="py-2 pr-4 font-semibold max-sm:py-0">
              {#if s.endpointId && !s.site}
                <a class="link" href={at(siteId, 'plan', s.endpointId)}>{who(s)}</a>
              {:else}{who(s)}{/if}
              {#if s.site}<span class="font-normal"> in {s.site}</span>{/if}
            </td>
            <td class="py-2 pr-4 font-mono max-sm:py-0">
              {#if s.mac}<a class="link" href={pastAt(siteId, { of: s.mac })}>{s.mac}</a>{/if}
            </td>
            <td class="py-2 pr-4 font-mono max-sm:py-0">
              <a class="link" href={pastAt(siteId, { of: s.address })}>{s.address}</a>
            </td>
            <td class="py-2 max-sm:py-0">
              {span(s)}
              <p class="quiet text-sm">
                {s.looks === 1 ? 'on one look' : `on ${s.looks} looks`}, by {s.source};
                <a class="link" href={pastAt(siteId, { at: typedMoment(s.last) })}>who else was there</a>
              </p>
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
  {/if}
  {#if told.data.ports.length}
    <table class="mt-5 w-full max-w-5xl text-left" aria-label="At which ports">
      <thead class="quiet text-sm max-sm:hidden">
        <tr
          ><th class="py-1 pr-4">Who</th><th class="pr-4">MAC</th><th class="pr-4">Port</th><th
            >Heard there</th
          ></tr
        >
      </thead>
      <tbody>
        {#each told.data.ports as p (p.mac + p.port + p.first)}
          <tr class="border-b border-base-300 align-top max-sm:grid max-sm:py-2">
            <td class="py-2 pr-4 font-semibold max-sm:py-0">
              {#if p.endpointId}<a class="link" href={at(siteId, 'plan', p.endpointId)}>{p.name}</a>
              {:else}{p.name || 'Not on record'}{/if}
            </td>
            <td class="py-2 pr-4 font-mono max-sm:py-0">
              <a class="link" href={pastAt(siteId, { of: p.mac })}>{p.mac}</a>
            </td>
            <td class="py-2 pr-4 max-sm:py-0">
              <a class="link" href={pastAt(siteId, { of: p.port })}>{p.port}</a>
            </td>
            <td class="py-2 max-sm:py-0">{span(p)}</td>
          </tr>
        {/each}
      </tbody>
    </table>
  {/if}
  {#if told.data.more}
    <p class="quiet mt-2">There is more than these 500. Give a time, or a single MAC, to see fewer.</p>
  {/if}
{/if}
