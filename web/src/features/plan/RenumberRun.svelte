<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { asProblem, api, ok, okWithTag } from '../../api/client';
  import { unlessTold } from '../../api/live';
  import { useChange } from '../../api/change.svelte';
  import Figures from '../../ui/Figures.svelte';
  import Knot from '../../ui/Knot.svelte';
  import Loading from '../../ui/Loading.svelte';
  import Steps from '../../ui/Steps.svelte';
  import Trouble from '../../ui/Trouble.svelte';

  let { id, mayWork }: { id: number; mayWork: boolean } = $props();
  const run = createQuery(() => ({
    queryKey: ['renumbering', id],
    queryFn: () => okWithTag(api.GET('/api/renumberings/{id}', { params: { path: { id } } })),
    refetchInterval: unlessTold(false),
  }));
  const change = useChange(() => [
    ['renumbering', id],
    ['site', r?.siteId],
  ]);
  const problem = $derived(change.problem);
  const busy = $derived(change.busy);
  const r = $derived(run.data?.data);
  const step = $derived(r?.steps[r.done]);
  const params = $derived({ path: { id }, header: { 'If-Match': run.data?.etag ?? '' } });
  const line = $derived(
    (r?.steps ?? []).map((s, i) => ({
      key: String(i),
      title: s.title,
      status:
        i < (r?.done ?? 0) ? ('PASSED' as const) : i === r?.done ? ('ACTIVE' as const) : ('PENDING' as const),
    })),
  );

  const act = (work: () => Promise<unknown>) => change.run(work);
</script>

{#if run.error}
  <Trouble problem={asProblem(run.error)} again={() => run.refetch()} />
{:else if !r}
  <Loading />
{:else}
  <section aria-label="Renumbering of {r.segment}" class="mb-8">
    <p class="mt-1">
      <span class="font-semibold">{r.segment}</span>: <span class="font-mono">{r.from}</span> →
      <span class="font-mono">{r.to}</span>, begun by {r.startedBy}.
    </p>
    <div class="mt-4 grid gap-x-10 gap-y-6 lg:grid-cols-[22rem_1fr]">
      <Steps steps={line} current={String(r.done)} label="Steps of the renumbering" />
      <div class="min-w-0 lg:order-last">
        {#if step}
          <p class="quiet">Step {r.done + 1} of {r.steps.length}</p>
          <h2 class="flex items-center gap-2 text-2xl"><Knot state="ACTIVE" />{step.title}</h2>
          {#if step.to && step.mover !== null}<p class="mt-2 text-[2rem] leading-tight font-semibold">
              <Figures value={step.to} />
            </p>{/if}
          <ul class="mt-3 grid gap-2 text-lg">
            {#each step.lines as text (text)}<li>{text}</li>{/each}
          </ul>
          <Trouble {problem} />
          {#if mayWork}
            <div class="mt-5 flex flex-wrap gap-2">
              <button
                class="btn btn-primary"
                data-complete
                disabled={busy}
                onclick={() => act(() => ok(api.POST('/api/renumberings/{id}/steps', { params })))}
                >Step done <kbd>Space</kbd></button
              >
              {#if r.done > 0}<button
                  class="btn btn-outline btn-primary"
                  disabled={busy}
                  onclick={() => act(() => ok(api.DELETE('/api/renumberings/{id}/steps/last', { params })))}
                  >Take the last step back</button
                >{/if}
              {#if r.mayGiveUp}<button
                  class="btn btn-ghost"
                  disabled={busy}
                  onclick={() => act(() => ok(api.DELETE('/api/renumberings/{id}', { params })))}
                  >Give it up</button
                >{/if}
            </div>
          {/if}
        {/if}
      </div>
    </div>
  </section>
{/if}
