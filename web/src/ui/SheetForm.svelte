<script lang="ts">
  import type { Snippet } from 'svelte';
  import Meanwhile from './Meanwhile.svelte';
  import type { SheetChange } from './sheetChange.svelte';
  import Trouble from './Trouble.svelte';

  /** A form of the sheet: its fields, what is wrong beside them, and the buttons that keep or remove. */
  let {
    children,
    change,
    shown = [],
    label,
    save,
    remove,
  }: {
    children: Snippet;
    change: SheetChange;
    shown?: string[];
    label: string;
    save: () => void;
    remove?: () => void;
  } = $props();
  const problem = $derived(change.problem);
  const beside = $derived(shown.some((field) => problem?.field(field)));
</script>

<form
  class="grid gap-x-6 gap-y-3 sm:grid-cols-2"
  onsubmit={(e) => {
    e.preventDefault();
    save();
  }}
>
  {@render children()}
  <div class="sm:col-span-2">
    {#if change.made}<Meanwhile made={change.made} />{/if}
    <Trouble problem={beside ? null : problem} />
    <div class="flex flex-wrap gap-2">
      <button class="btn btn-primary">{label}</button>
      {#if remove}<button type="button" class="btn btn-outline btn-error" onclick={remove}>Remove it</button
        >{/if}
    </div>
  </div>
</form>
