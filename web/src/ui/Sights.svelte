<script lang="ts">
  /** The sights of one station: a line of links, the one that is open marked. */
  let {
    label,
    links,
    current,
  }: { label: string; links: { href: string; name: string; count?: number }[]; current: string } = $props();
</script>

<nav aria-label={label} class="no-print mb-3 flex flex-wrap gap-x-5 gap-y-1">
  {#each links as link (link.name)}
    <a
      href={link.href}
      class="border-b-2 pb-0.5 text-sm no-underline hover:text-base-content {link.href === current
        ? 'border-accent font-bold'
        : 'quiet border-transparent'}"
      aria-current={link.href === current ? 'page' : undefined}
      >{link.name}{#if link.count}<span class="ml-1.5 font-mono">{link.count}</span>{/if}</a
    >
  {/each}
</nav>
