<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { conflictsQuery } from '../../api/queries';
  import Sights from '../../ui/Sights.svelte';
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
  const links = $derived(
    LINKS.map(([path, name]) => ({
      href: at(siteId, 'plan', path),
      name,
      count: path === 'mend' ? conflicts.data?.length : undefined,
    })),
  );
</script>

<Sights label="Sights of the plan" {links} current={at(siteId, 'plan', view)} />
