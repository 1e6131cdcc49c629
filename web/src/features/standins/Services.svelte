<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { api, ok } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import Trouble from '../../ui/Trouble.svelte';

  /** The DHCP server and the portal that come with the demo: what is handed over can be given to them. */
  const client = useQueryClient();
  const services = createQuery(() => ({
    queryKey: ['bench', 'services'],
    queryFn: () => ok(api.GET('/api/bench-panel/services')),
  }));
  let text = $state('');
  const change = useChange();
  const problem = $derived(change.problem);
  let taken = $state(false);

  async function give(event: SubmitEvent) {
    event.preventDefault();
    taken = false;
    await change.run(async () => {
      client.setQueryData(
        ['bench', 'services'],
        await ok(api.PUT('/api/bench-panel/services', { body: { text } })),
      );
      taken = true;
    });
  }
</script>

{#if services.data}
  <section class="mt-8 border-t border-base-300 pt-4" aria-label="Its registries">
    <h3 class="font-bold">The DHCP server of the demo</h3>
    <div class="mt-1 grid gap-6 md:grid-cols-2">
      <form onsubmit={give}>
        <label class="field-label" for="bench-reservations">Its reservation file</label>
        <textarea
          id="bench-reservations"
          class="textarea h-32 w-full font-mono text-xs whitespace-pre"
          spellcheck="false"
          placeholder={services.data.reservations || 'empty'}
          bind:value={text}
        ></textarea>
        <Trouble {problem} />
        <button class="btn mt-2 btn-outline btn-primary btn-sm" disabled={!text.trim()}
          >Give it this file</button
        >
        <span role="status" class="text-sm text-success">{taken ? 'Taken.' : ''}</span>
      </form>
      <div>
        <label class="field-label" for="bench-leases">Its lease file</label>
        <textarea
          id="bench-leases"
          class="textarea h-32 w-full font-mono text-xs whitespace-pre"
          readonly
          value={services.data.leases}
        ></textarea>
      </div>
    </div>
    <p class="mt-3 text-sm">
      Its portal:
      <a class="link" href={services.data.portal} target="_blank" rel="noreferrer">{services.data.portal}</a>
      {services.data.portalNote}
    </p>
  </section>
{/if}
