<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { api, asProblem, ok, type Problem, type Schemas } from '../../api/client';
  import { sessionQuery } from '../../api/queries';
  import TextField from '../../ui/TextField.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { at } from '../../router';

  let {
    endpoint,
    line,
  }: { endpoint: { data: Schemas['EndpointView']; etag: string }; line: Schemas['LineView'] } = $props();
  const client = useQueryClient();
  const session = createQuery(() => sessionQuery);
  const e = $derived(endpoint.data);
  let note = $state('');
  let problem = $state<Problem | null>(null);

  async function sign(event: SubmitEvent) {
    event.preventDefault();
    try {
      await ok(
        api.POST('/api/endpoints/{id}/confirmation', {
          params: { path: { id: e.id }, header: { 'If-Match': endpoint.etag } },
          body: { note },
        }),
      );
      problem = null;
    } catch (error) {
      problem = asProblem(error);
    }
    await client.invalidateQueries({ queryKey: ['endpoint', e.id] });
    await client.invalidateQueries({ queryKey: ['site', e.siteId] });
  }
</script>

{#if e.station !== 'CONFIRM'}
  <p class="caution mt-6">
    The checks hold, but its runbook is not done. <a class="link" href={at(e.siteId, 'onboard', e.id)}
      >Finish the runbook</a
    >, then sign off.
  </p>
{:else}
  <form onsubmit={sign} class="mt-6">
    <p class="text-lg font-bold">{line.gradeWords}.</p>
    {#if !line.handsOver}
      <p class="caution mt-1">
        Too thin to hand over. See its real job yourself, or have a photo sent, first.
      </p>
    {/if}
    <TextField label="A note to the office (may be empty)" bind:value={note} error={problem?.field('note')} />
    <Trouble {problem} />
    <button class="btn mt-3 btn-primary">Sign off as {session.data?.name}</button>
  </form>
{/if}
