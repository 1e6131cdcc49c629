<script lang="ts">
  import { useQueryClient } from '@tanstack/svelte-query';
  import type { Problem, Schemas } from '../api/client';
  import Confirm from '../features/verify/Confirm.svelte';
  import Audit from '../features/audit/Audit.svelte';
  import Handover from '../features/handover/Handover.svelte';
  import Onboard from '../features/onboard/Onboard.svelte';
  import Plan from '../features/plan/Plan.svelte';
  import Register from '../features/register/Register.svelte';
  import Visits from '../features/visit/Visits.svelte';
  import { draft } from '../ui/draft.svelte';
  import Figures from '../ui/Figures.svelte';
  import Knot from '../ui/Knot.svelte';
  import Tag from '../ui/Tag.svelte';
  import Trouble from '../ui/Trouble.svelte';
  import type { Place } from '../router';
  import Beside from './Beside.svelte';
  import { takeAlong } from './takeAlong';
  import TopLine from './TopLine.svelte';

  let {
    siteId,
    place,
    endpoint,
    trouble,
    session,
  }: {
    siteId: number;
    place: Place;
    endpoint?: { data: Schemas['EndpointView']; etag: string };
    trouble: Problem | null;
    session: Schemas['Session'];
  } = $props();
  // Lists and drawings of the whole site take the width that no tag needs.
  const alone = $derived('view' in place && place.view !== 'mend');
  const mayWork = $derived(session.role !== 'OFFICE');
  const client = useQueryClient();
  $effect(() => {
    if (!mayWork) return;
    // Not before what is looked at is there.
    const timer = setTimeout(() => void takeAlong(client, siteId), 4_000);
    return () => clearTimeout(timer);
  });
</script>

<a class="btn absolute top-2 left-2 z-50 -translate-y-20 btn-primary focus:translate-y-0" href="#work"
  >Skip to the work</a
>
<TopLine {siteId} station={place.station} chosen={'endpoint' in place ? place.endpoint : 0} {session} />
{#if endpoint}
  <!-- Narrow: the tag is a strip. -->
  <div class="sticky top-0 z-10 bg-manila px-4 py-2 min-[900px]:hidden" data-tag-strip>
    <div class="flex items-baseline justify-between gap-3">
      <span class="truncate font-bold">{endpoint.data.name}</span><Knot
        state={endpoint.data.status}
        size={22}
      />
    </div>
    <div class="flex flex-wrap items-baseline justify-between gap-x-3 text-sm">
      {#if endpoint.data.address}<Figures value={endpoint.data.address} class="text-lg font-semibold" />{/if}
      <span class="font-mono" translate="no">{endpoint.data.mac ?? 'MAC not read yet'}</span>
    </div>
  </div>
{/if}
<div
  class="gap-8 px-4 min-[900px]:px-6 {alone
    ? ''
    : 'min-[900px]:grid min-[900px]:grid-cols-[minmax(0,1fr)_340px]'}"
>
  <main id="work" class="min-w-0 pt-4 pb-10" tabindex="-1">
    <Trouble problem={trouble} />
    {#if place.station === 'plan'}<Plan {siteId} {place} {endpoint} {mayWork} />
    {:else if place.station === 'register'}<Register {siteId} {place} {endpoint} {mayWork} />
    {:else if place.station === 'onboard'}<Onboard {siteId} {place} {endpoint} {mayWork} role={session.role}>
        {#snippet visits()}<Visits {siteId} {mayWork} />{/snippet}
      </Onboard>
    {:else if place.station === 'confirm'}<Confirm {siteId} {place} {endpoint} {mayWork} />
    {:else if place.station === 'audit'}<Audit
        {siteId}
        {place}
        {endpoint}
        {mayWork}
        lead={session.role === 'LEAD'}
      />
    {:else}<Handover {siteId} {place} {endpoint} {mayWork} lead={session.role === 'LEAD'} />{/if}
  </main>
  <aside
    class="relative hidden pt-6 {alone ? '' : 'min-[900px]:block'}"
    aria-label={endpoint || draft.tag ? 'Tag of the chosen endpoint' : 'Beside the work'}
  >
    {#if endpoint}
      <svg
        class="pointer-events-none absolute -top-8 left-0 h-16 w-full overflow-visible"
        fill="none"
        aria-hidden="true"
      >
        <path
          d="M-30 -6C40 -6 60 44 104 52C144 60 170 62 170 76"
          stroke="var(--color-accent)"
          stroke-width="2.6"
        />
      </svg>
      <div class="relative"><Tag endpoint={endpoint.data} /></div>
    {:else if draft.tag}
      <Tag endpoint={draft.tag} />
    {:else}
      <Beside {siteId} station={place.station} />
    {/if}
  </aside>
</div>
