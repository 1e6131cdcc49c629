<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, asProblem, ok, type Schemas } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import Knot from '../../ui/Knot.svelte';
  import Lately from '../../ui/Lately.svelte';
  import Loading from '../../ui/Loading.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { dayTime } from '../../ui/time';
  import { at } from '../../router';
  import Hung from './Hung.svelte';
  import LetPass from './LetPass.svelte';
  import { readinessQuery } from './queries';
  import { TAG, whereTo } from './words';

  /** One endpoint: what is left to do before it can be handed over, each where it is settled. */
  let { siteId, id, mayWork, lead }: { siteId: number; id: number; mayWork: boolean; lead: boolean } =
    $props();
  const ready = createQuery(() => readinessQuery(siteId));
  const e = $derived(ready.data?.endpoints.find((x) => x.id === id));
  const left = $derived(e?.acts.filter((a) => !a.passed) ?? []);
  const change = useChange(() => [['site', siteId]]);
  let passing = $state('');

  const takeBack = (a: Schemas['ActView']) =>
    change.run(() =>
      ok(api.DELETE('/api/endpoints/{id}/let-pass/{key}', { params: { path: { id, key: a.key } } })),
    );
</script>

<p class="text-sm"><a class="link" href={at(siteId, 'handover')}>What is left at the whole site</a></p>
{#if ready.error}
  <Trouble problem={asProblem(ready.error)} again={() => ready.refetch()} />
{:else if !ready.data}
  <Loading />
{:else if !e}
  <p class="mt-3">It is retired: there is nothing to hand over.</p>
{:else}
  <h1 class="mt-1">{e.name}</h1>
  <p class="mt-1 text-lg" role="status">
    {#if e.handedOverAt}Handed over {dayTime(e.handedOverAt)}.
    {:else if e.ready}Ready to be handed over with the <a
        class="link font-semibold"
        href={at(siteId, 'handover', 'packs')}>client’s pack</a
      >.
    {:else}{left.length === 1 ? 'One thing is' : `${left.length} things are`} left to do.{/if}
  </p>
  <p class="quiet mt-1 flex flex-wrap items-center gap-3">
    <span>{TAG[e.tag][0]?.toUpperCase()}{TAG[e.tag].slice(1)}.</span>
    {#if mayWork}
      {#if e.tag === 'TO_HANG'}<Hung {siteId} ids={[id]} />{/if}
      <a class="link" href={whereTo(siteId, 'TAG_PRINT', id)}
        >{e.tag === 'NOT_PRINTED' ? 'Print it' : 'Print it again'}</a
      >
    {/if}
  </p>
  <ul class="mt-4 max-w-3xl" aria-label="Before it is handed over">
    {#each e.acts as a (a.key)}
      <li class="border-b border-base-300 py-3" data-act={a.what}>
        <div class="flex items-start gap-3">
          <Knot state={a.passed ? 'SKIPPED' : 'PENDING'} size={26} />
          <div class="min-w-0 flex-1">
            <p class="text-[17px] font-semibold">{a.title}</p>
            <p>{a.detail}</p>
            {#if a.passed}<p class="mt-1">
                {a.passed.by} lets it pass: {a.passed.reason}
              </p>{/if}
            <div class="mt-2 flex flex-wrap gap-2">
              {#if a.passed}
                {#if lead}<button class="btn btn-ghost btn-sm" onclick={() => takeBack(a)}
                    >It is to be done after all</button
                  >{/if}
              {:else}
                {#if a.what !== 'TAG_HANG'}<a
                    class="btn btn-outline btn-primary btn-sm"
                    href={whereTo(siteId, a.what, id)}>Settle it</a
                  >{/if}
                {#if lead && a.canPass}<button
                    class="btn btn-ghost btn-sm"
                    aria-expanded={passing === a.key}
                    onclick={() => (passing = passing === a.key ? '' : a.key)}>Let it pass</button
                  >{/if}
              {/if}
            </div>
            {#if passing === a.key}
              <LetPass {siteId} acts={[{ endpointId: id, key: a.key }]} done={() => (passing = '')} />
            {/if}
          </div>
        </div>
      </li>
    {/each}
  </ul>
  <Trouble problem={change.problem} />
  <div class="mt-8"><Lately {siteId} endpointId={id} most={8} /></div>
{/if}
