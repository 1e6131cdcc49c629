<script lang="ts">
  import Camera from '@lucide/svelte/icons/camera';
  import ScanLine from '@lucide/svelte/icons/scan-line';
  import { api, bytes, ok, type Schemas } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import Scanner from './Scanner.svelte';
  import TextField from '../../ui/TextField.svelte';
  import { at, go } from '../../router';

  /** Takes the code of a tag, typed or scanned, and goes to its endpoint; of a wrong one it says what may have been meant. */
  let code = $state('');
  let looking = $state(false);
  const camera = 'mediaDevices' in navigator;
  const change = useChange();
  type Near = { row: Schemas['TaggedEndpoint']; how: string };
  const near = $derived((change.problem?.more.meant as Near[] | undefined) ?? []);

  const arrive = (found: () => Promise<Schemas['TaggedEndpoint']>) =>
    change.run(async () => {
      const tag = await found();
      await go(at(tag.siteId, 'plan', tag.id));
    });
  const scanned = (text: string) => {
    code = text;
    void read();
  };
  const read = () => arrive(() => ok(api.GET('/api/tag', { params: { query: { code } } })));
  const pictured = (file?: File) => {
    if (file) void arrive(() => ok(api.POST('/api/tag-picture', bytes(file))));
  };
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
  <p class="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1 text-sm">
    {#if camera}<button
        type="button"
        class="flex link items-center gap-2"
        aria-expanded={looking}
        onclick={() => (looking = !looking)}><ScanLine size={16} aria-hidden="true" />With the camera</button
      >{/if}
    <label class="flex w-fit link cursor-pointer items-center gap-2"
      ><Camera size={16} aria-hidden="true" />{camera ? 'Or a' : 'A'} picture of the tag<input
        type="file"
        accept="image/*"
        capture="environment"
        class="sr-only"
        onchange={(e) => pictured(e.currentTarget.files?.[0])}
      /></label
    >
  </p>
  {#if looking}<Scanner seen={scanned} shut={() => (looking = false)} />{/if}
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
