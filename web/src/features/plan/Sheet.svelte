<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { asProblem, type Schemas } from '../../api/client';
  import { sessionQuery, sheetQuery } from '../../api/queries';
  import Loading from '../../ui/Loading.svelte';
  import { dayOf, timeOf } from '../../ui/time';
  import Trouble from '../../ui/Trouble.svelte';
  import SheetDialog, { type Open } from './SheetDialog.svelte';
  import ServiceLine from './ServiceLine.svelte';

  let { siteId, mayWork }: { siteId: number; mayWork: boolean } = $props();
  const sheet = createQuery(() => sheetQuery(siteId));
  const session = createQuery(() => sessionQuery);
  const data = $derived(sheet.data?.data);
  let chosen = $state<Open | null>(null);
  let open = $state(false);
  const show = (what: Open) => ((chosen = what), (open = true));
  const TYPES = { ROUTER: 'router', SWITCH: 'switch', ACCESS_POINT: 'access point', MODEM: 'modem' } as const;
  const FEEDS: Record<string, string> = { WALL: 'a wall data port', MODEM: 'a modem' };
  const portLabel = (id: number | null) => {
    const port = data?.gear.flatMap((g) => g.ports).find((p) => p.id === id);
    return port ? port.gear + ' ' + port.number : '';
  };
  const ports = (g: Schemas['GearView']) =>
    (['LAN', 'WAN', 'UPLINK', 'OFF'] as const)
      .map((role) => [g.ports.filter((p) => p.role === role).length, role] as const)
      .filter(([n]) => n)
      .map(([n, role]) => `${n} ${role === 'OFF' ? 'off' : role === 'UPLINK' ? 'uplink' : role}`)
      .join(', ');
</script>

{#snippet head(title: string, add: string, what: Open)}
  <div class="flex items-baseline justify-between gap-4 border-b-2 border-base-content pb-1">
    <h2>{title}</h2>
    {#if mayWork}<button class="link text-sm text-primary" onclick={() => show(what)}>{add}</button>{/if}
  </div>
{/snippet}
{#snippet row(name: string, rest: string, what: Open)}
  <li class="flex items-baseline gap-3 border-b border-base-300 py-1.5">
    <span class="font-semibold">{name}</span><span class="quiet min-w-0 flex-1 text-sm">{rest}</span>
    {#if mayWork}<button
        class="link text-sm text-primary"
        onclick={() => show(what)}
        aria-label="Change {name}">Change</button
      >{/if}
  </li>
{/snippet}

<div class="flex flex-wrap items-center gap-3">
  <h1 class="mr-auto">Site sheet</h1>
  <button class="btn btn-outline btn-primary btn-sm" onclick={() => show({ what: 'trust' })}
    >Trusted range</button
  >
  <button class="btn btn-outline btn-primary btn-sm" onclick={() => show({ what: 'rules' })}
    >Firewall rules</button
  >
</div>
{#if sheet.error}
  <Trouble problem={asProblem(sheet.error)} again={() => sheet.refetch()} />
{:else if !data}
  <Loading />
{:else}
  <div class="mt-4 gap-x-10 lg:columns-2 [&>section]:mb-8 [&>section]:break-inside-avoid">
    <section aria-label="The site">
      {@render head(data.site.name, 'Change', { what: 'site' })}
      <dl class="mt-1 grid grid-cols-[8rem_1fr] gap-y-1">
        <dt class="quiet">Client</dt>
        <dd>{data.site.client ?? 'none named'}</dd>
        <dt class="quiet">Time zone</dt>
        <dd>{data.site.zone}</dd>
        <dt class="quiet">Days and times</dt>
        <dd>
          {dayOf('2026-03-29')}, {timeOf('14:05')}
          {#if session.data?.role === 'LEAD'}<button
              class="link text-sm text-primary"
              onclick={() => show({ what: 'dates' })}>Write them otherwise</button
            >{/if}
        </dd>
        <dt class="quiet">Host names</dt>
        <dd class="font-mono text-sm">{data.site.nameRule}</dd>
        <dt class="quiet">Fed by</dt>
        <dd>
          {data.site.feed ? FEEDS[data.site.feed] : 'not known yet'}{data.site.feedPortId
            ? ', into ' + portLabel(data.site.feedPortId)
            : ''}
          <span class="quiet">{data.site.feedNote}</span>
        </dd>
      </dl>
    </section>
    <section aria-label="Segments">
      {@render head('Segments', 'New segment', { what: 'segment' })}
      <ul>
        {#each data.segments as s (s.id)}
          {@render row(
            s.name,
            [
              s.prefix,
              s.vlan && 'VLAN ' + s.vlan,
              s.gateway && 'gateway ' + s.gateway,
              s.pools.map((p) => p.from + ' to ' + p.to).join(', '),
              s.prefix6,
              s.notes,
            ]
              .filter(Boolean)
              .join(' · '),
            { what: 'segment', row: s },
          )}
        {:else}<li class="quiet py-2">None yet.</li>{/each}
      </ul>
    </section>
    <section aria-label="Gear">
      {@render head('Gear', 'Add gear', { what: 'gear' })}
      <ul>
        {#each data.gear as g (g.id)}
          {@render row(g.name, [TYPES[g.type], g.place, ports(g)].filter(Boolean).join(' · '), {
            what: 'gear',
            row: g,
          })}
        {:else}<li class="quiet py-2">No router or switch yet. Put one here, with its ports.</li>{/each}
      </ul>
    </section>
    <section aria-label="Outlets">
      {@render head('Outlets', 'Add an outlet', { what: 'outlet' })}
      <ul>
        {#each data.outlets as o (o.id)}
          {@render row(
            o.name,
            [
              o.place,
              o.state === 'PATCHED'
                ? 'to ' + portLabel(o.portId)
                : o.state === 'DEAD'
                  ? 'dead'
                  : 'not known where it leads',
            ]
              .filter(Boolean)
              .join(' · '),
            { what: 'outlet', row: o },
          )}
        {:else}<li class="quiet py-2">No outlet yet.</li>{/each}
      </ul>
    </section>
    <section aria-label="Services">
      {@render head('Services it calls', 'List a service', { what: 'service' })}
      <ul>
        {#each data.services as s (s.id)}
          <ServiceLine
            {siteId}
            row={s}
            change={mayWork ? () => show({ what: 'service', row: s }) : undefined}
          />
        {:else}<li class="quiet py-2">
            None yet. Checks go only to what is listed here and to its segments.
          </li>{/each}
      </ul>
    </section>
    <section aria-label="Places">
      {@render head('Places, in the order of walking', 'Add a place', { what: 'place' })}
      <ul>
        {#each data.places as p (p.id)}{@render row(p.name, '', { what: 'place', row: p })}{:else}<li
            class="quiet py-2"
          >
            No place yet.
          </li>{/each}
      </ul>
    </section>
  </div>
  <SheetDialog bind:open {chosen} {siteId} sheet={sheet.data ?? { data, etag: '' }} />
{/if}
