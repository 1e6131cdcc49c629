<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, ok, type Schemas } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import { sessionQuery } from '../../api/queries';
  import Trouble from '../../ui/Trouble.svelte';

  /** What the office says from its end, apart from the person on site. */
  let {
    endpointId,
    line,
    done,
  }: {
    endpointId: number;
    line: Schemas['VerificationView'];
    done: (line: Schemas['VerificationView']) => void;
  } = $props();
  const session = createQuery(() => sessionQuery);
  const change = useChange();
  const problem = $derived(change.problem);
  const asked = $derived(session.data?.role === 'OFFICE' && line.at);

  async function say(reached: boolean) {
    await change.run(async () => {
      done(
        await ok(
          api.POST('/api/endpoints/{id}/office-word', {
            params: { path: { id: endpointId } },
            body: { reached },
          }),
        ),
      );
    });
  }
</script>

{#if line.apart || asked}
  <section class="mt-6 border-t border-base-300 pt-4" aria-label="From the office">
    <h2 class="text-base">From the office</h2>
    {#if line.apart}<p class="mt-1">{line.apart}</p>{/if}
    {#if asked}
      <p class="mt-1">Try it from your end. Do you reach this very one?</p>
      <div class="mt-2 flex flex-wrap gap-2">
        <button class="btn btn-outline btn-primary" onclick={() => say(true)}>I reach it</button>
        <button class="btn btn-outline btn-primary" onclick={() => say(false)}>I do not reach it</button>
      </div>
      <Trouble {problem} />
    {/if}
  </section>
{/if}
