<script lang="ts">
  import { api, ok, type Schemas } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import Knot from '../../ui/Knot.svelte';
  import Trouble from '../../ui/Trouble.svelte';

  /** A service that the site calls; it can be tried at once. */
  let { siteId, row, change }: { siteId: number; row: Schemas['ServiceRow']; change?: () => void } = $props();
  let tried = $state<Schemas['TriedView'] | null>(null);
  const trying = useChange();
  const problem = $derived(trying.problem);

  async function attempt() {
    await trying.run(async () => {
      tried = await ok(
        api.POST('/api/sites/{siteId}/services/{id}/try', { params: { path: { siteId, id: row.id } } }),
      );
    });
  }
</script>

<li class="border-b border-base-300 py-1.5">
  <div class="flex items-baseline gap-3">
    <span class="font-semibold">{row.name}</span><span class="quiet min-w-0 flex-1 text-sm break-words"
      >{row.host} port {row.port}</span
    >
    {#if change}
      <button
        class="link text-sm text-primary"
        disabled={trying.busy}
        onclick={attempt}
        aria-label="Try {row.name}">{trying.busy ? 'Trying…' : 'Try it'}</button
      >
      <button class="link text-sm text-primary" onclick={change} aria-label="Change {row.name}">Change</button
      >
    {/if}
  </div>
  {#if tried}
    <p class="mt-1 flex items-start gap-2 text-sm" role="status">
      <Knot state={tried.status} /><span class="min-w-0 flex-1"
        >{tried.seen}
        {#if tried.remedy}<span class="font-semibold">{tried.remedy}</span>{/if}</span
      >
    </p>
  {/if}
  <Trouble {problem} />
</li>
