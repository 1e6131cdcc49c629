<script lang="ts">
  import type { Schemas } from '../../api/client';
  import Knot from '../../ui/Knot.svelte';
  import { dayAt } from '../../ui/time';
  import { at } from '../../router';

  /** One thing that a night tells of, with where it is settled. */
  let { siteId, line: l }: { siteId: number; line: Schemas['ToldLineView'] } = $props();
  const STATES = { NEW: 'FAILED', STILL: 'ACTIVE', WELL: 'PASSED' } as const;
  const whereTo = $derived(
    l.look === 'audit'
      ? at(siteId, 'audit')
      : l.look === 'list'
        ? at(siteId, 'register')
        : l.look === 'service'
          ? at(siteId, 'plan', 'sheet')
          : at(siteId, 'confirm', l.endpointId || undefined),
  );
</script>

<li class="flex items-start gap-3 border-b border-base-300 py-2.5">
  <Knot state={STATES[l.news]} size={24} />
  <div class="min-w-0 flex-1">
    <a class="link font-semibold" href={whereTo}>{l.title}</a>
    {#if l.news === 'WELL'}
      <p class="quiet text-sm">No longer; it was so since {dayAt(l.since)}.</p>
    {:else}
      <p>{l.detail}</p>
      {#if l.news === 'STILL'}<p class="quiet text-sm">Since {dayAt(l.since)}</p>{/if}
    {/if}
  </div>
</li>
