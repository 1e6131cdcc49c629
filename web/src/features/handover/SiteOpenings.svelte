<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { asProblem } from '../../api/client';
  import Knot from '../../ui/Knot.svelte';
  import Loading from '../../ui/Loading.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { DANGERS } from '../../ui/dangers';
  import { dayOf } from '../../ui/time';
  import { at } from '../../router';
  import { readinessQuery } from './queries';

  /** Everything that stands open at the site, the worst first; secrets themselves are on no record. */
  let { siteId }: { siteId: number } = $props();
  const ready = createQuery(() => readinessQuery(siteId));
</script>

<h1>What stands open</h1>
{#if ready.error}
  <Trouble problem={asProblem(ready.error)} again={() => ready.refetch()} />
{:else if !ready.data}
  <Loading />
{:else if !ready.data.openings.length}
  <p class="mt-2">Nothing stands open at this site.</p>
{:else}
  <p class="quiet mt-1">The worst first. What is the same on several devices is one line.</p>
  <ol class="mt-3 max-w-4xl">
    {#each ready.data.openings as o (o.danger + o.title)}
      {@const all = o.holders.length}
      <li class="border-b border-base-300 py-3" data-opening={o.danger}>
        <h2 class="text-[17px] font-semibold">
          {o.title}{all > 1 ? `, on ${all} devices` : ''}
        </h2>
        <p class="quiet text-sm">
          {DANGERS[o.danger]}{o.holders[0]?.closes ? `. ${o.holders[0].closes}` : ''}
        </p>
        <ul class="mt-2 grid gap-1">
          {#each o.holders as h (h.endpointId)}
            <li class="flex flex-wrap items-center gap-x-3">
              <Knot state={h.overdue || !h.owner ? 'FAILED' : 'ACTIVE'} size={22} />
              <a class="min-w-40 link" href={at(siteId, 'onboard', h.endpointId)}>{h.name}</a>
              <span class={h.overdue ? 'text-error' : ''}
                >{#if h.owner}{h.owner} closes it by {h.ends ? dayOf(h.ends) : 'a day not set'}{h.overdue
                    ? ', which has passed'
                    : ''}{:else}nobody has it in hand{/if}</span
              >
            </li>
          {/each}
        </ul>
      </li>
    {/each}
  </ol>
{/if}
