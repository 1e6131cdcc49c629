<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import Loading from '../../ui/Loading.svelte';
  import Sights from '../../ui/Sights.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { dayTime } from '../../ui/time';
  import { asProblem } from '../../api/client';
  import { at, type AtStation } from '../../router';
  import FindingLine from './FindingLine.svelte';
  import Firmware from './Firmware.svelte';
  import Gear from './Gear.svelte';
  import Nights from './Nights.svelte';
  import Past from './Past.svelte';
  import Recheck from './Recheck.svelte';
  import WhatIf from './WhatIf.svelte';
  import { auditQuery } from './queries';

  /** What is really there: all that differs from the record, what costs most first, each with the one act that mends it. */
  let { siteId, place, endpoint, mayWork, lead }: AtStation<'audit'> & { lead: boolean } = $props();
  const audit = createQuery(() => auditQuery(siteId));
  const view = $derived('view' in place ? place.view : undefined);
  const known = $derived(audit.data?.findings.filter((f) => f.standing === 'KNOWN') ?? []);
  const guests = $derived(audit.data?.findings.filter((f) => f.standing === 'GUEST') ?? []);
  const drifted = $derived(
    audit.data?.findings.filter((f) => f.standing !== 'KNOWN' && f.standing !== 'GUEST') ?? [],
  );
  const shown = $derived(view === 'known' ? [...guests, ...known] : drifted);
  const links = $derived([
    { href: at(siteId, 'audit'), name: 'What differs', count: audit.data?.drifted },
    { href: at(siteId, 'audit', 'known'), name: 'Others here', count: guests.length + known.length },
    { href: at(siteId, 'audit', 'gear'), name: 'Routers and switches' },
    { href: at(siteId, 'audit', 'recheck'), name: 'Check again' },
    { href: at(siteId, 'audit', 'firmware'), name: 'Firmware' },
    { href: at(siteId, 'audit', 'nights'), name: 'Every night' },
    { href: at(siteId, 'audit', 'past'), name: 'Where it was' },
    { href: at(siteId, 'audit', 'change'), name: 'What if' },
  ]);
</script>

<Sights label="Sights of Audit" {links} current={at(siteId, 'audit', view)} />
{#if view === 'gear'}
  <Gear {siteId} {mayWork} />
{:else if view === 'recheck'}
  <Recheck {siteId} {mayWork} />
{:else if view === 'firmware'}
  <Firmware {siteId} {mayWork} />
{:else if view === 'nights'}
  <Nights {siteId} {mayWork} {lead} />
{:else if view === 'past'}
  <Past {siteId} />
{:else if view === 'change'}
  <WhatIf {siteId} {mayWork} />
{:else if audit.error}
  <Trouble problem={asProblem(audit.error)} again={() => audit.refetch()} />
{:else if !audit.data}
  <Loading />
{:else}
  <h1>{view === 'known' ? 'Others here' : 'What differs from the record'}</h1>
  {#if !audit.data.lookedAt}
    <p class="mt-2 max-w-2xl text-lg">
      Nobody has looked at this site yet, so nothing can be said of it. <a
        class="link font-semibold"
        href={at(siteId, 'confirm', 'sweep')}>Sweep a segment</a
      >
      or <a class="link" href={at(siteId, 'plan', 'intake')}>paste a neighbour table or a lease list</a>.
    </p>
  {:else if view === 'known'}
    <p class="mt-1">
      {shown.length
        ? 'Guests on a lease, and those of which somebody said what they are. Whoever moves is asked about again.'
        : 'Nobody is here but what is on record.'}
    </p>
  {:else}
    <p class="mt-1 text-lg" role="status">
      {drifted.length === 0
        ? 'Nothing differs'
        : drifted.length === 1
          ? 'One thing differs'
          : `${drifted.length} things differ`}; {audit.data.right} as on record{audit.data.unseen
        ? `, ${audit.data.unseen} could not be seen yet`
        : ''}.
    </p>
    <p class="quiet text-sm">
      Somebody last looked {dayTime(audit.data.lookedAt)}.
      <a class="link" href={at(siteId, 'confirm', 'sweep')}>Look again</a>
    </p>
  {/if}
  <ul class="mt-4 max-w-4xl" aria-label={view === 'known' ? 'Others here' : 'What differs'}>
    {#each shown as f (f.standing + (f.endpointId || f.mac))}
      <FindingLine {siteId} finding={f} {mayWork} chosen={!!endpoint && f.endpointId === endpoint.data.id} />
    {/each}
  </ul>
{/if}
