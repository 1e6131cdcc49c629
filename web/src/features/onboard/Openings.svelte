<script lang="ts">
  import type { Schemas } from '../../api/client';
  import Knot from '../../ui/Knot.svelte';
  import { dayOf } from '../../ui/time';
  import KeptWhere from './KeptWhere.svelte';
  import LendOpening from './LendOpening.svelte';

  /** What stands open on a device: closed, or somebody's to close by a day. */
  let {
    openings,
    mayWork,
    keep,
  }: {
    openings: Schemas['OpeningView'][];
    mayWork: boolean;
    keep: (key: string, body: Schemas['OpeningRequest']) => Promise<boolean>;
  } = $props();
  let lending = $state('');
  const FOUND = 'found';

  const standing = (o: Schemas['OpeningView']) =>
    o.closed
      ? 'Closed'
      : o.owner
        ? `${o.owner} closes it by ${o.ends ? dayOf(o.ends) : 'a day not set'}${o.overdue ? ': overdue' : ''}`
        : 'Stands open';

  async function later(key: string, body: Partial<Schemas['OpeningRequest']>) {
    const kept = await keep(key, { closed: false, ...body });
    if (kept) lending = '';
    return kept;
  }
</script>

<ul aria-label="What stands open">
  {#each openings as o (o.key)}
    <li class="border-b border-base-300 py-3" data-opening={o.key}>
      <div class="flex items-start gap-3">
        <Knot state={o.closed ? 'PASSED' : o.overdue || !o.owner ? 'FAILED' : 'ACTIVE'} size={26} />
        <div class="min-w-0 flex-1">
          <p class="text-[17px] font-semibold">{o.title}</p>
          <p class="text-sm {o.overdue ? 'text-error' : 'quiet'}">{standing(o)}</p>
          {#if !o.closed && o.closes}<p>{o.closes}</p>{/if}
        </div>
      </div>
      {#if mayWork}
        <div class="mt-2 pl-9">
          {#if o.closed && o.secret}<KeptWhere
              note={o.note}
              keep={(note) => keep(o.key, { closed: true, note })}
            />{/if}
          {#if o.closed}
            <button type="button" class="btn btn-ghost btn-sm" onclick={() => (lending = o.key)}
              >Open again</button
            >
          {:else}
            <button
              type="button"
              class="btn btn-outline btn-primary btn-sm"
              onclick={() => keep(o.key, { closed: true })}>It is closed</button
            >
            <button
              type="button"
              class="btn btn-ghost btn-sm"
              aria-expanded={lending === o.key}
              onclick={() => (lending = lending === o.key ? '' : o.key)}>Later, by somebody</button
            >
          {/if}
          {#if lending === o.key}<LendOpening keep={(owner, ends) => later(o.key, { owner, ends })} />{/if}
        </div>
      {/if}
    </li>
  {/each}
</ul>
{#if mayWork}
  <button
    type="button"
    class="btn mt-2 btn-ghost px-2 btn-sm"
    aria-expanded={lending === FOUND}
    onclick={() => (lending = lending === FOUND ? '' : FOUND)}>Something else stands open</button
  >
  {#if lending === FOUND}
    <LendOpening
      named
      keep={(owner, ends, title, danger) =>
        later(`${FOUND}-${openings.length + 1}`, { owner, ends, title, danger })}
    />
  {/if}
{/if}
