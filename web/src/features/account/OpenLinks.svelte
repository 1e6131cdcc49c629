<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, ok } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import { dayTimeIn } from '../../ui/time';
  import Trouble from '../../ui/Trouble.svelte';
  import { HERE, linksQuery } from './queries';

  /** Links that somebody could still use. */
  const links = createQuery(() => linksQuery);
  const change = useChange(() => [['people']]);
  const withdraw = (id: number) =>
    change.run(() => ok(api.DELETE('/api/invitations/{id}', { params: { path: { id } } })));
</script>

{#if links.data?.length}
  <section aria-label="Links that are still good" class="mt-8">
    <h2>Links that are still good</h2>
    <ul class="mt-1">
      {#each links.data as l (l.id)}
        <li class="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-base-300 py-2">
          <span class="min-w-56 flex-1">
            {l.person ? `New password for ${l.person}` : `Invitation as ${l.role.toLowerCase()}`}
            <span class="quiet block text-sm"
              >Made by {l.invitedBy}, good until {dayTimeIn(l.expiresAt, HERE)}</span
            >
          </span>
          <button class="btn btn-sm" disabled={change.busy} onclick={() => withdraw(l.id)}
            >Take it back</button
          >
        </li>
      {/each}
    </ul>
    <Trouble problem={change.problem} />
  </section>
{/if}
