<script lang="ts">
  import type { Snippet } from 'svelte';
  import type { Problem } from '../api/client';
  import Trouble from './Trouble.svelte';

  /** A form of the sheet: its fields, what is wrong beside them, and the buttons that keep or remove. */
  let {
    children,
    problem,
    shown = [],
    label,
    save,
    remove,
  }: {
    children: Snippet;
    problem: Problem | null;
    shown?: string[];
    label: string;
    save: () => void;
    remove?: () => void;
  } = $props();
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
    <Trouble problem={beside ? null : problem} />
    <div class="flex flex-wrap gap-2">
      <button class="btn btn-primary">{label}</button>
      {#if remove}<button type="button" class="btn btn-outline btn-error" onclick={remove}>Remove it</button
        >{/if}
    </div>
  </div>
</form>
