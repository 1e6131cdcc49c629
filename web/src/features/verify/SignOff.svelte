<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, ok, type Schemas } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import { sessionQuery } from '../../api/queries';
  import TextField from '../../ui/TextField.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { at } from '../../router';

  let {
    endpoint,
    line,
  }: { endpoint: { data: Schemas['EndpointView']; etag: string }; line: Schemas['VerificationView'] } =
    $props();
  const session = createQuery(() => sessionQuery);
  const e = $derived(endpoint.data);
  let note = $state('');
  const change = useChange(() => [
    ['endpoint', e.id],
    ['site', e.siteId],
  ]);
  const problem = $derived(change.problem);

  async function sign(event: SubmitEvent) {
    event.preventDefault();
    await change.run(async () => {
      await ok(
        api.POST('/api/endpoints/{id}/confirmation', {
          params: { path: { id: e.id }, header: { 'If-Match': endpoint.etag } },
          body: { note },
        }),
      );
    });
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
