<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { conflictsQuery } from '../../api/queries';
  import { at, type PlanView } from '../../router';

  let { siteId, view }: { siteId: number; view?: PlanView } = $props();
  const conflicts = createQuery(() => conflictsQuery(siteId));
  const LINKS: [PlanView | undefined, string][] = [
    [undefined, 'Tape'],
    ['mend', 'To mend'],
    ['series', 'Series'],
    ['wiring', 'Wiring'],
    ['sheet', 'Site sheet'],
    ['intake', 'Bring in'],
    ['renumber', 'Renumber'],
  ];
</script>

<nav aria-label="Sights of the plan" class="no-print mb-3 flex flex-wrap gap-x-5 gap-y-1">
  {#each LINKS as [path, name] (name)}
    <a
      href={at(siteId, 'plan', path)}
      class="border-b-2 pb-0.5 text-sm no-underline hover:text-base-content {path === view
        ? 'border-accent font-bold'
        : 'quiet border-transparent'}"
      aria-current={path === view ? 'page' : undefined}
      >{name}{#if path === 'mend' && conflicts.data?.length}<span class="ml-1.5 font-mono"
          >{conflicts.data.length}</span
        >{/if}</a
    >
  {/each}
</nav>
