<script lang="ts" module>
  export type Sort = 'urgency' | 'name' | 'address' | 'place' | 'kind';
</script>

<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import type { Schemas } from '../api/client';
  import { kindsQuery } from '../api/queries';
  import { kept } from './kept.svelte';
  import EndpointRow from './EndpointRow.svelte';
  import { at, type StationPath } from '../router';
  import { stateWord, urgency } from './states';

  /** Every endpoint of a site on one dense line: what waits here first, sorted and filtered as it was left. */
  let {
    siteId,
    station,
    lines,
    wanted,
    chosen = 0,
    label,
    facts = false,
  }: {
    siteId: number;
    station: StationPath;
    lines: Schemas['EndpointLine'][];
    wanted: (e: Schemas['EndpointLine']) => boolean;
    chosen?: number;
    label: string;
    /** Whether MAC and serial stand on the line, instead of kind and place. */
    facts?: boolean;
  } = $props();
  const kinds = createQuery(() => kindsQuery);
  // svelte-ignore state_referenced_locally
  const sieve = kept(`list-${station}-${siteId}`, {
    text: '',
    kind: '',
    place: '',
    state: '',
    sort: 'urgency' as Sort,
  }).value;
  const kindName = $derived((id: string) => kinds.data?.find((k) => k.id === id)?.name ?? id);
  const among = (of: (e: Schemas['EndpointLine']) => string) =>
    [...new Set(lines.map(of))].filter(Boolean).toSorted((a, b) => a.localeCompare(b));
  const kindsHere = $derived(among((e) => e.kind));
  const places = $derived(among((e) => e.place));
  const states = $derived(among(stateWord));
  const text = $derived(sieve.text.trim().toLowerCase());
  const shown = $derived(
    lines.filter(
      (e) =>
        (!sieve.kind || e.kind === sieve.kind) &&
        (!sieve.place || e.place === sieve.place) &&
        (!sieve.state || stateWord(e) === sieve.state) &&
        (!text ||
          [e.name, e.address, e.mac, e.serial, e.place, e.tagCode].some((t) =>
            t?.toLowerCase().includes(text),
          )),
    ),
  );
  const number = (address?: string | null) =>
    (address ?? '255.255.255.255').split('.').reduce((n, g) => n * 256 + Number(g), 0);
  const ORDERS: Record<Sort, (a: Schemas['EndpointLine'], b: Schemas['EndpointLine']) => number> = {
    urgency: (a, b) => Number(wanted(b)) - Number(wanted(a)) || urgency(a) - urgency(b),
    name: (a, b) => a.name.localeCompare(b.name, undefined, { numeric: true }),
    address: (a, b) => number(a.address) - number(b.address),
    place: (a, b) => a.place.localeCompare(b.place, undefined, { numeric: true }),
    kind: (a, b) => a.kind.localeCompare(b.kind),
  };
  const sorted = $derived(
    shown.toSorted((a, b) => ORDERS[sieve.sort](a, b) || number(a.address) - number(b.address)),
  );
  /** More rows than these take the browser long, and nobody reads them. */
  const AT_ONCE = 500;
  let most = $state(AT_ONCE);
  const waiting = $derived(shown.filter(wanted).length);
  const sieved = $derived(!!(text || sieve.kind || sieve.place || sieve.state));
  const COLUMNS: [Sort, string][] = $derived(
    facts
      ? [
          ['name', 'Endpoint'],
          ['address', 'Address'],
        ]
      : [
          ['name', 'Endpoint'],
          ['kind', 'Kind'],
          ['place', 'Place'],
          ['address', 'Address'],
        ],
  );

  /** Arrow keys walk the list, so that hundreds need no tab key. */
  function walk(event: KeyboardEvent) {
    const down = event.key === 'ArrowDown';
    if ((!down && event.key !== 'ArrowUp') || !(event.currentTarget instanceof HTMLElement)) return;
    const links = [...event.currentTarget.querySelectorAll<HTMLAnchorElement>('tbody a')];
    const now = links.indexOf(document.activeElement as HTMLAnchorElement);
    links[Math.max(0, Math.min(links.length - 1, now + (down ? 1 : -1)))]?.focus();
    event.preventDefault();
  }
</script>

<div class="flex flex-wrap items-end gap-2" role="search" aria-label="Filter: {label}">
  <label class="sr-only" for="filter-{station}">Filter</label>
  <input
    id="filter-{station}"
    type="search"
    class="input w-44 input-sm"
    placeholder="Filter"
    bind:value={sieve.text}
  />
  {#if states.length > 1}<select class="select w-auto select-sm" aria-label="State" bind:value={sieve.state}>
      <option value="">Any state</option>
      {#each states as s (s)}<option>{s}</option>{/each}
    </select>{/if}
  {#if kindsHere.length > 1}<select class="select w-auto select-sm" aria-label="Kind" bind:value={sieve.kind}>
      <option value="">Any kind</option>
      {#each kindsHere as k (k)}<option value={k}>{kindName(k)}</option>{/each}
    </select>{/if}
  {#if places.length > 1}<select
      class="select w-auto max-w-48 select-sm"
      aria-label="Place"
      bind:value={sieve.place}
    >
      <option value="">Any place</option>
      {#each places as p (p)}<option>{p}</option>{/each}
    </select>{/if}
  {#if sieved}<button
      class="btn btn-ghost btn-sm"
      onclick={() => Object.assign(sieve, { text: '', kind: '', place: '', state: '' })}>Show all</button
    >{/if}
  <p class="quiet ml-auto text-sm" role="status">
    {waiting} waiting, {sieved ? `${shown.length} of ${lines.length} shown` : `${lines.length} in all`}
  </p>
</div>
<!-- The rows are links; arrow keys only walk between them. -->
<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
<table class="mt-2 w-full table-fixed text-[15px]" aria-label={label} onkeydown={walk}>
  <thead class="max-md:sr-only">
    <tr class="border-b-2 border-base-content text-left text-sm">
      <th class="w-[9.5rem] py-1 font-normal"
        ><button
          class="cursor-pointer {sieve.sort === 'urgency' ? 'font-bold' : ''}"
          aria-pressed={sieve.sort === 'urgency'}
          onclick={() => (sieve.sort = 'urgency')}>State</button
        ></th
      >
      {#each COLUMNS as [sort, name] (sort)}
        <th
          class="py-1 font-normal {sort === 'address'
            ? 'w-32'
            : sort === 'kind' || sort === 'place'
              ? 'w-[22%]'
              : ''}"
          aria-sort={sieve.sort === sort ? 'ascending' : undefined}
          ><button
            class="cursor-pointer {sieve.sort === sort ? 'font-bold' : ''}"
            onclick={() => (sieve.sort = sort)}>{name}</button
          ></th
        >
      {/each}
      {#if facts}<th class="w-44 py-1 font-normal">MAC</th><th class="w-40 py-1 font-normal">Serial</th>{/if}
    </tr>
  </thead>
  <tbody>
    {#each sorted.slice(0, most) as e (e.id)}
      <EndpointRow
        {e}
        href={at(siteId, station, e.id)}
        kind={kindName(e.kind)}
        chosen={e.id === chosen}
        waits={wanted(e)}
        {facts}
      />
    {:else}
      <tr
        ><td class="quiet py-4" colspan="5"
          >Nothing here fits. <button
            class="link"
            onclick={() => Object.assign(sieve, { text: '', kind: '', place: '', state: '' })}
            >Show all</button
          ></td
        ></tr
      >
    {/each}
  </tbody>
</table>
{#if sorted.length > most}
  <p class="mt-2">
    <button class="btn btn-outline btn-primary btn-sm" onclick={() => (most += AT_ONCE)}
      >Show {Math.min(AT_ONCE, sorted.length - most)} more of {sorted.length}</button
    >
  </p>
{/if}
