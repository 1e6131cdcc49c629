<script lang="ts">
  import { api, ok, type Schemas } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import TextField from '../../ui/TextField.svelte';

  /** A lead lets one or several things stay as they are, with the reason that stands in the pack. */
  let { siteId, acts, done }: { siteId: number; acts: Schemas['OpenActRequest'][]; done: () => void } =
    $props();
  const change = useChange(() => [['site', siteId]]);
  let reason = $state('');

  async function letPass() {
    const passed = await change.run(() =>
      ok(api.POST('/api/sites/{siteId}/let-pass', { params: { path: { siteId } }, body: { acts, reason } })),
    );
    if (passed) done();
  }
</script>

<form
  class="mt-2 flex max-w-xl flex-wrap items-end gap-2"
  onsubmit={(ev) => {
    ev.preventDefault();
    void letPass();
  }}
>
  <div class="flex-1">
    <TextField
      label="Why may it stay so? It stands in the pack."
      bind:value={reason}
      error={change.problem?.field('reason') ?? change.problem?.message}
      autofocus
      required
    />
  </div>
  <button class="btn btn-primary btn-sm" disabled={change.busy}
    >Let {acts.length === 1 ? 'it' : `all ${acts.length}`} pass</button
  >
</form>
