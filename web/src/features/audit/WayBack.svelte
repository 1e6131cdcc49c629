<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, asProblem, ok } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import Loading from '../../ui/Loading.svelte';
  import TextField from '../../ui/TextField.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { at } from '../../router';
  import WayBackWay from './WayBackWay.svelte';
  import { wayBackQuery } from './queries';

  /** What most likely happened to a device that is away from its address, and the ways back, the better one first. */
  let { siteId, id, mayWork }: { siteId: number; id: number; mayWork: boolean } = $props();
  const told = createQuery(() => wayBackQuery(id));
  const change = useChange(() => [
    ['endpoint', id],
    ['site', siteId],
  ]);
  const back = $derived(told.data?.data.back);
  let backup = $state('');
  let opened = $state(false);

  async function again(reset: boolean) {
    const params = { path: { id }, header: { 'If-Match': told.data?.etag ?? '' } };
    const why = `${told.data?.data.words}, by what was seen.`;
    opened = await change.run(() =>
      ok(
        reset
          ? api.POST('/api/endpoints/{id}/runbook/reset', { params, body: { why, backup } })
          : api.POST('/api/endpoints/{id}/runbook/address-again', { params, body: { why } }),
      ),
    );
  }
</script>

<section class="mt-3 border-l-4 border-base-300 pl-4" aria-label="What happened, and the ways back">
  {#if told.error}
    <Trouble problem={asProblem(told.error)} again={() => told.refetch()} />
  {:else if !told.data || !back}
    <Loading />
  {:else}
    <h2 class="text-lg font-bold">Most likely: {told.data.data.words}</h2>
    <p class="mt-1">{back.says}</p>
    <p class="mt-1 font-medium">{back.surer}</p>
    {#if back.gone.length}<p class="mt-1">Then this is gone: {back.gone.join(', ')}.</p>{/if}
    {#if opened}
      <p class="mt-3 text-lg" role="status">
        Its steps are open again. <a class="link font-semibold" href={at(siteId, 'onboard', id)}
          >Go on in its runbook</a
        >
      </p>
    {:else}
      {#if back.data && mayWork}
        <div class="mt-3 max-w-xl">
          <TextField
            label="Which backup covers what is lost"
            bind:value={backup}
            error={change.problem?.field('backup')}
            hint="Data of the client go with a reset."
          />
        </div>
      {/if}
      {#if change.problem && !change.problem.field('backup')}<Trouble problem={change.problem} />{/if}
      {#each back.ways as way, i (way.act)}
        <WayBackWay {siteId} {id} {way} better={i === 0} {mayWork} busy={change.busy} {again} />
      {/each}
    {/if}
  {/if}
</section>
