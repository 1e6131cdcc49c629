<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { asProblem, api, okWithTag, type Schemas } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import { conflictsQuery, endpointQuery } from '../../api/queries';
  import Knot from '../../ui/Knot.svelte';
  import Loading from '../../ui/Loading.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { at } from '../../router';

  type Conflict = Schemas['Conflict'];
  let { siteId, mayWork, most = 1000 }: { siteId: number; mayWork: boolean; most?: number } = $props();
  const client = useQueryClient();
  const conflicts = createQuery(() => conflictsQuery(siteId));
  const shown = $derived((conflicts.data ?? []).slice(0, most));
  const change = useChange(() => [['site', siteId]]);
  const problem = $derived(change.problem);
  const KNOTS = { BROKEN: 'FAILED', RISK: 'ACTIVE', UNTIDY: 'PENDING' } as const;
  const WORDS = { BROKEN: 'Does not work', RISK: 'May stop working', UNTIDY: 'Worth doing' };

  async function move(conflict: Conflict) {
    if (!conflict.move) return;
    const { endpointId, to } = conflict.move;
    await change.run(async () => {
      const { etag } = await client.fetchQuery({ ...endpointQuery(endpointId), staleTime: 0 });
      await okWithTag(
        api.PATCH('/api/endpoints/{id}', {
          params: { path: { id: endpointId }, header: { 'If-Match': etag } },
          body: { address: to, reason: 'Mended: ' + conflict.message.slice(0, 90) },
        }),
      );
      await client.invalidateQueries({ queryKey: ['endpoint', endpointId] });
    });
  }
</script>

<section aria-label="To mend, worst first" class="min-w-0">
  <h2>To mend, worst first</h2>
  <Trouble {problem} />
  {#if conflicts.error}
    <Trouble problem={asProblem(conflicts.error)} again={() => conflicts.refetch()} />
  {:else if !conflicts.data}
    <Loading />
  {:else if !shown.length}
    <p class="mt-2 flex items-center gap-2">
      <Knot state="PASSED" size={24} />Nothing clashes and nothing is at risk.
    </p>
  {:else}
    <ul class="mt-1 grid gap-2.5">
      {#each shown as c (c.code + c.message)}
        <li class="flex items-start gap-2.5" data-conflict={c.code}>
          <span title={WORDS[c.severity]}><Knot state={KNOTS[c.severity]} size={24} /></span>
          <div class="min-w-0 text-sm">
            <p>
              {#if c.endpoints[0]}<a class="hover:underline" href={at(siteId, 'plan', c.endpoints[0])}
                  >{c.message}</a
                >{:else}{c.message}{/if}
            </p>
            <p class="quiet">
              {c.mend}
              {#if c.move && mayWork}<button class="ml-1 link text-primary" onclick={() => move(c)}
                  >Move it on record</button
                >{/if}
            </p>
          </div>
        </li>
      {/each}
    </ul>
    {#if (conflicts.data?.length ?? 0) > most}<p class="mt-2 text-sm">
        <a class="link" href={at(siteId, 'plan', 'mend')}>All {conflicts.data.length}</a>
      </p>{/if}
  {/if}
</section>
