<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { cleanUpQuery, dueQuery, registriesQuery, swapsQuery } from '../../api/queries';
  import Sights from '../../ui/Sights.svelte';
  import { at, type RegisterView } from '../../router';

  let { siteId, view }: { siteId: number; view?: RegisterView } = $props();
  const registries = createQuery(() => registriesQuery(siteId));
  const due = createQuery(() => dueQuery(siteId));
  const swaps = createQuery(() => swapsQuery(siteId));
  const clean = createQuery(() => cleanUpQuery(siteId));
  const waiting = $derived(
    registries.data?.reduce((sum, r) => sum + (r.counts.TO_REGISTER ?? 0) + r.toCorrect, 0),
  );
  const links = $derived(
    (
      [
        [undefined, 'Labels', undefined],
        ['registries', 'Registries', waiting],
        ['due', 'Due', due.data?.items.filter((i) => i.due).length],
        ['swaps', 'Swaps', swaps.data?.filter((s) => !s.ended).length],
        ['clean-up', 'Clean up', clean.data?.items.length],
      ] as [RegisterView | undefined, string, number | undefined][]
    ).map(([path, name, count]) => ({ href: at(siteId, 'register', path), name, count })),
  );
</script>

<Sights label="Sights of the register" {links} current={at(siteId, 'register', view)} />
