<script lang="ts">
  import { useQueryClient } from '@tanstack/svelte-query';
  import { api, ok, type Schemas } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { dayTime } from '../../ui/time';

  /** What was said to have mended things at the site: what the search learns from, each of which can be taken back. */
  let {
    siteId,
    endpointId,
    mended,
    learns,
  }: { siteId: number; endpointId: number; mended: Schemas['MendedView'][]; learns: boolean } = $props();
  const client = useQueryClient();
  const change = useChange();
  const problem = $derived(change.problem);

  async function takeBack(checkRunId: number) {
    await change.run(async () => {
      await ok(
        api.DELETE('/api/sites/{siteId}/mended/{checkRunId}', { params: { path: { siteId, checkRunId } } }),
      );
      await client.invalidateQueries({ queryKey: ['endpoint', endpointId, 'diagnosis'] });
    });
  }
</script>

{#if mended.length}
  <details class="mt-3 text-sm">
    <summary class="cursor-pointer font-semibold"
      >{learns
        ? `Learned from ${mended.length} faults mended at this site; none counts for more than three times what is usual`
        : `Mended at this site so far: ${mended.length}. From eight on the search learns from them`}</summary
    >
    <ul class="mt-1">
      {#each mended as m (m.checkRunId)}
        <li class="flex flex-wrap items-baseline gap-x-3">
          <span>{m.endpoint}: {m.title}</span><span class="quiet"
            >{dayTime(m.at)}{m.by ? `, ${m.by}` : ''}</span
          >
          <button
            class="link"
            aria-label="Take back: {m.endpoint}, {m.title}"
            onclick={() => takeBack(m.checkRunId)}>Take back</button
          >
        </li>
      {/each}
    </ul>
    <Trouble {problem} />
  </details>
{/if}
