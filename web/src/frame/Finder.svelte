<script lang="ts">
  import Search from '@lucide/svelte/icons/search';
  import { createQuery } from '@tanstack/svelte-query';
  import { api, ok } from '../api/client';
  import Dialog from '../ui/Dialog.svelte';
  import Knot from '../ui/Knot.svelte';
  import { at, go, type StationPath } from '../router';

  let { siteId, station }: { siteId: number; station: StationPath } = $props();
  let open = $state(false);
  let text = $state('');
  let marked = $state(0);
  let wanted = $state(false);
  let input = $state<HTMLInputElement>();
  const found = createQuery(() => ({
    queryKey: ['find', siteId, text.trim()],
    queryFn: ({ signal }) =>
      ok(api.GET('/api/find', { params: { query: { q: text.trim(), siteId } }, signal })),
    enabled: text.trim().length > 0,
    placeholderData: (before) => before,
  }));
  const lines = $derived(text.trim() ? (found.data ?? []) : []);

  $effect(() => {
    if (open) input?.focus();
  });

  // Enter may come before the answer does: go there as soon as it is the answer to what stands in the field.
  $effect(() => {
    const line = lines[marked];
    if (!wanted || found.isPlaceholderData || found.isFetching) return;
    wanted = false;
    if (line) enter(line.id, line.siteId);
  });

  function enter(id: number, site: number) {
    open = false;
    text = '';
    go(at(site, station, id));
  }

  function keys(e: KeyboardEvent) {
    if (e.key === 'ArrowDown') marked = Math.min(marked + 1, lines.length - 1);
    else if (e.key === 'ArrowUp') marked = Math.max(marked - 1, 0);
    else if (e.key === 'Enter') {
      wanted = true;
    } else return;
    e.preventDefault();
  }

  function shortcut(e: KeyboardEvent) {
    const typing = (e.target as HTMLElement).closest('input, textarea, select, [contenteditable]');
    if (
      (e.key === '/' && !typing && !e.ctrlKey) ||
      (e.key.toLowerCase() === 'k' && (e.ctrlKey || e.metaKey))
    ) {
      e.preventDefault();
      open = true;
    }
  }
</script>

<svelte:window onkeydown={shortcut} />
<button class="btn btn-ghost px-2 btn-sm" onclick={() => (open = true)}>
  <Search size={16} aria-hidden="true" /><span class="max-[500px]:sr-only">Find</span><kbd
    class="max-[900px]:hidden">/</kbd
  >
</button>
<Dialog bind:open title="Find an endpoint">
  <label class="field-label" for="finder">Any piece you have in hand</label>
  <input
    id="finder"
    bind:this={input}
    bind:value={text}
    oninput={() => ((marked = 0), (wanted = false))}
    onkeydown={keys}
    class="input w-full font-mono text-lg"
    placeholder="16.54, 532B, a serial, a tag code, a place"
    autocomplete="off"
    spellcheck="false"
  />
  <p class="sr-only" role="status">{text.trim() ? lines.length + ' found' : ''}</p>
  <ul class="mt-3 min-h-40">
    {#each lines as line, i (line.id)}
      <li>
        <button
          class="flex w-full items-center gap-3 rounded px-2 py-1.5 text-left {i === marked
            ? 'bg-base-200'
            : ''}"
          onclick={() => enter(line.id, line.siteId)}
        >
          <Knot state={line.status as 'PENDING'} size={24} />
          <span class="min-w-0 flex-1"
            ><span class="block truncate font-semibold">{line.name}</span><span
              class="quiet block truncate text-sm"
              >{line.place}{line.siteId === siteId ? '' : ' (another site)'}</span
            ></span
          >
          <span class="text-right font-mono text-sm"
            >{line.address ?? ''}<br />{line.mac ?? line.tagCode}</span
          >
        </button>
      </li>
    {:else}
      {#if text.trim() && !found.isFetching}<li class="quiet px-2 py-3">
          Nothing on record has “{text.trim()}”. Try another piece: the tail of the MAC, the serial, the
          place.
        </li>{/if}
    {/each}
  </ul>
</Dialog>
