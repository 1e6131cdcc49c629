<script lang="ts">
  import X from '@lucide/svelte/icons/x';
  import type { Snippet } from 'svelte';

  let {
    open = $bindable(false),
    title,
    children,
    wide = false,
  }: { open?: boolean; title: string; children: Snippet; wide?: boolean } = $props();
  let dialog = $state<HTMLDialogElement>();

  $effect(() => {
    if (open) dialog?.showModal();
    else dialog?.close();
  });
</script>

<dialog bind:this={dialog} class="modal" onclose={() => (open = false)} aria-label={title}>
  {#if open}
    <div class="modal-box bg-base-100 {wide ? 'max-w-3xl' : 'max-w-xl'}">
      <div class="mb-4 flex items-center justify-between gap-4">
        <h2 class="text-xl">{title}</h2>
        <button class="btn btn-ghost btn-sm" onclick={() => (open = false)}
          ><X size={18} aria-hidden="true" />Close</button
        >
      </div>
      {@render children()}
    </div>
  {/if}
</dialog>
