<script lang="ts">
  /** What was changed: each part that is another than it was, or the whole when there is only one side. */
  let { before, after }: { before: unknown; after: unknown } = $props();
  type Part = { name: string; was: string; is: string };
  const words = (v: unknown) =>
    v === null || v === undefined ? '' : typeof v === 'object' ? JSON.stringify(v) : String(v);
  const map = (v: unknown) =>
    v !== null && typeof v === 'object' && !Array.isArray(v) ? (v as Record<string, unknown>) : undefined;
  const parts = $derived.by((): Part[] => {
    const [b, a] = [map(before), map(after)];
    if (!b && !a) return before || after ? [{ name: '', was: words(before), is: words(after) }] : [];
    const names = [...new Set([...Object.keys(b ?? {}), ...Object.keys(a ?? {})])];
    return names
      .map((name) => ({ name, was: words(b?.[name]), is: words(a?.[name]) }))
      .filter((p) => p.was !== p.is);
  });
  let open = $state(false);
  const spelled = (name: string) => name.replace(/([A-Z])/g, (l) => ' ' + l.toLowerCase());
</script>

{#if parts.length}
  <button class="quiet ml-2 link text-sm" aria-expanded={open} onclick={() => (open = !open)}
    >{open ? 'less' : 'more'}</button
  >
  {#if open}
    <dl class="mt-1 mb-2 grid grid-cols-[8rem_minmax(0,1fr)] gap-x-3 text-sm">
      {#each parts as p (p.name)}
        <dt class="quiet">{spelled(p.name)}</dt>
        <dd class="font-mono break-words">
          {#if p.was}<s class="quiet">{p.was}</s>{/if}
          {p.is}
        </dd>
      {/each}
    </dl>
  {/if}
{/if}
