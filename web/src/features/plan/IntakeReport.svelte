<script lang="ts">
  import type { Schemas } from '../../api/client';
  import Knot from '../../ui/Knot.svelte';
  import { at } from '../../router';

  let {
    siteId,
    report,
    make,
    match,
    take,
  }: {
    siteId: number;
    report: Schemas['IntakeView'];
    make: boolean;
    match: (name: string, index: number) => void;
    take: () => void;
  } = $props();
  const COLUMNS: [string, string][] = [
    ['NAME', 'name'],
    ['KIND', 'kind'],
    ['NUMBER', 'number'],
    ['ADDRESS', 'address'],
    ['MAC', 'MAC'],
    ['SERIAL', 'serial'],
    ['PLACE', 'place'],
    ['OUTLET', 'outlet'],
    ['PORT', 'switch port'],
  ];
  const meaning = (index: number) => Object.entries(report.columns).find(([, i]) => i === index)?.[0] ?? '';
  const asides = $derived([...report.known, ...report.leftOut].sort((a, b) => a.line - b.line));
</script>

<div role="status">
  {#if report.headers.length && report.preview}
    <h2>What each column means</h2>
    <ul class="mt-1 mb-4 flex flex-wrap gap-x-4 gap-y-2">
      {#each report.headers as header, i (i)}
        <li class="text-sm">
          <label
            ><span class="block font-semibold">{header || 'column ' + (i + 1)}</span>
            <select
              class="select select-sm"
              value={meaning(i)}
              onchange={(e) => match(e.currentTarget.value, i)}
            >
              <option value="">nothing here</option>
              {#each COLUMNS as [value, name] (value)}<option {value}>{name}</option>{/each}
            </select></label
          >
        </li>
      {/each}
    </ul>
  {/if}
  {#if report.unused.length && report.preview}
    <p class="caution mb-4">
      {report.unused.length === 1 ? 'This column means' : 'These columns mean'} nothing here and
      {report.unused.length === 1 ? 'is' : 'are'} left out: {report.unused.join(', ')}. Say above what
      {report.unused.length === 1 ? 'it means' : 'they mean'}, if they are wanted.
    </p>
  {/if}
  {#if report.problems.length}
    <h2 class="flex items-center gap-2">
      <Knot state="FAILED" size={24} />{report.problems.length === 1
        ? 'One line is'
        : report.problems.length + ' lines are'} wrong; nothing is taken
    </h2>
    <ul class="mt-2">
      {#each report.problems.slice(0, 60) as p (p.line + p.column + p.message)}
        <li class="grid grid-cols-[4rem_1fr] border-b border-base-300 py-1.5 text-sm">
          <span class="font-mono">line {p.line}</span><span
            >{#if p.column}<b class="mr-1.5 font-semibold">{p.column}</b>{/if}{p.message}</span
          >
        </li>
      {/each}
    </ul>
  {:else if report.preview}
    <h2>
      {make ? `This makes ${report.made.length}` : 'This makes nothing new'}{report.seen
        ? `, and notes ${report.seen} that were seen`
        : ''}
    </h2>
    <ul class="mt-1">
      {#each report.made.slice(0, 200) as row (row.line)}
        <li
          class="grid grid-cols-[2.5rem_8.5rem_1fr] items-baseline gap-x-2 border-b border-base-300 py-1 text-sm"
        >
          <span class="quiet font-mono">{row.line}</span>
          <span class="font-mono font-semibold" translate="no">{row.address}</span>
          <span
            >{row.name}
            <span class="quiet">{row.kindName}{row.place ? ', ' + row.place : ''}. {row.reason}</span></span
          >
        </li>
      {/each}
    </ul>
    {#if report.made.length || report.seen}<button type="button" class="btn mt-4 btn-primary" onclick={take}
        >{report.made.length ? `Bring in ${report.made.length}` : `Note ${report.seen}`}</button
      >{:else}<p class="mt-2">Nothing in it is new.</p>{/if}
  {:else}
    <h2 class="flex items-center gap-2">
      <Knot state="PASSED" size={24} />{report.made.length} brought in, {report.seen} seen
    </h2>
    <p class="mt-2 flex gap-4">
      <a class="link" href={at(siteId, 'plan')}>See the tape</a>
      <a class="link" href={at(siteId, 'plan', 'mend')}>See what is to mend</a>
    </p>
  {/if}
  {#if asides.length}
    <h2 class="mt-5">Left out, with the reason</h2>
    <ul class="mt-1">
      {#each asides.slice(0, 60) as r (r.line + r.message)}
        <li class="quiet grid grid-cols-[4rem_1fr] py-0.5 text-sm">
          <span class="font-mono">line {r.line}</span><span>{r.message}</span>
        </li>
      {/each}
    </ul>
  {/if}
</div>
