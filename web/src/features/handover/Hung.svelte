<script lang="ts">
  import { api, ok } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import Trouble from '../../ui/Trouble.svelte';

  /** Says of printed tags that they hang. */
  let { siteId, ids }: { siteId: number; ids: number[] } = $props();
  const change = useChange(() => [['site', siteId]]);
  const hung = () =>
    change.run(() =>
      ok(
        api.POST('/api/sites/{siteId}/tags/hung', {
          params: { path: { siteId } },
          body: { endpointIds: ids },
        }),
      ),
    );
</script>

<button class="btn btn-outline btn-primary btn-sm" disabled={change.busy} onclick={hung}
  >{ids.length === 1 ? 'It hangs' : `All ${ids.length} hang`}</button
>
<Trouble problem={change.problem} />
