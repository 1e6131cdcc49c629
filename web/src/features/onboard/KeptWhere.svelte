<script lang="ts">
  import { untrack } from 'svelte';
  import TextField from '../../ui/TextField.svelte';

  /** Where the new password of a device is kept; what it is stands on no record. */
  let { note, keep }: { note: string; keep: (note: string) => Promise<boolean> } = $props();
  let typed = $state(untrack(() => note));
</script>

<form
  class="mb-2 flex max-w-md flex-wrap items-end gap-2"
  onsubmit={(e) => {
    e.preventDefault();
    void keep(typed);
  }}
>
  <div class="flex-1">
    <TextField label="Where is the new one kept? Not what it is." bind:value={typed} />
  </div>
  {#if typed !== note}<button class="btn btn-outline btn-primary btn-sm">Note it</button>{/if}
</form>
