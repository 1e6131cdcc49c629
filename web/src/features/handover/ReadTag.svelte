<script lang="ts">
  import { api, ok, type Schemas } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import TextField from '../../ui/TextField.svelte';
  import { at, go } from '../../router';

  /** Takes the code of a tag, typed or scanned, and goes to its endpoint; of a wrong one it says what may have been meant. */
  let code = $state('');
  const change = useChange();
  type Near = { row: Schemas['TaggedEndpoint']; how: string };
  const near = $derived((change.problem?.more.meant as Near[] | undefined) ?? []);

  const read = () =>
    change.run(async () => {
      const tag = await ok(api.GET('/api/tag', { params: { query: { code } } }));
      await go(at(tag.siteId, 'plan', tag.id));
    });
</script>

<form
  onsubmit={(e) => {
    e.preventDefault();
    void read();
  }}
>
  <div class="flex max-w-md flex-wrap items-end gap-2">
    <div class="flex-1">
      <TextField label="Code of a tag, typed or scanned" bind:value={code} mono required />
    </div>
    <button class="btn btn-primary" disabled={change.busy}>Go to it</button>
  </div>
  <div role="alert">
    {#if change.problem}<p class="mt-2 max-w-xl text-error">{change.problem.message}</p>{/if}
  </div>
  {#each near as n (n.row.id)}
    <p class="mt-1">
      <a class="link font-semibold" href={at(n.row.siteId, 'plan', n.row.id)}>{n.row.name}</a>, {n.row
        .tagCode}
    </p>
  {/each}
</form>
