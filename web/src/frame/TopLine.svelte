<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import type { Schemas } from '../api/client';
  import { stationsQuery, welcomeQuery } from '../api/queries';
  import { auditQuery } from '../features/audit/queries';
  import BenchPanel from '../features/standins/BenchPanel.svelte';
  import SiteMenu from '../features/plan/SiteMenu.svelte';
  import Knot from '../ui/Knot.svelte';
  import { at, STATION_NAMES, STATIONS, type StationPath } from '../router';
  import Finder from './Finder.svelte';
  import Keys from './Keys.svelte';
  import PersonMenu from './PersonMenu.svelte';
  import Timers from './Timers.svelte';
  import Unsent from './Unsent.svelte';

  let {
    siteId,
    station,
    chosen,
    session,
  }: { siteId: number; station: StationPath; chosen: number; session: Schemas['Session'] } = $props();
  const stations = createQuery(() => stationsQuery(siteId));
  const welcome = createQuery(() => welcomeQuery);
  const audit = createQuery(() => auditQuery(siteId));
  type Standing = Pick<Schemas['StationView'], 'status' | 'waiting' | 'next'>;
  const standing = (path: StationPath): Standing | undefined =>
    path === 'audit' ? audited : stations.data?.find((s) => s.station === path.toUpperCase());
  /** Nothing waits at Audit: it says how many differ from the record, and nothing before somebody has looked. */
  const audited = $derived<Standing | undefined>(
    audit.data && { status: audit.data.status, waiting: audit.data.drifted, next: false },
  );
</script>

<header
  class="no-print flex flex-wrap items-start gap-x-2 px-4 pt-3 min-[900px]:h-20 min-[900px]:flex-nowrap min-[900px]:px-6"
>
  <div class="flex items-start gap-2.5 min-[900px]:w-60">
    <img src="/mark.svg" alt="" width="30" height="30" />
    <div>
      <p class="text-[17px] leading-tight font-bold tracking-tight">Knot Tag</p>
      <SiteMenu {siteId} {session} />
    </div>
  </div>
  <a class="quiet mt-[39px] text-sm hover:underline max-[899px]:hidden" href="/today">Today</a>
  <nav
    class="stations order-last mt-2 w-full min-[900px]:order-none min-[900px]:mt-0 min-[900px]:w-auto min-[900px]:flex-1"
    aria-label="Stations of the work"
  >
    <ol class="relative flex justify-around">
      {#each STATIONS as path (path)}
        {@const s = standing(path)}
        <li class="flex-1">
          <a
            href={at(siteId, path, chosen || undefined)}
            class="station relative flex flex-col items-center gap-0.5 rounded pb-1 text-sm no-underline max-[499px]:text-xs {path ===
            station
              ? 'font-bold'
              : 'quiet'}"
            aria-current={path === station ? 'page' : undefined}
          >
            <span class="bg-base-100 px-0.5" class:next={s?.next}
              ><Knot state={s?.status ?? 'PENDING'} size={path === station ? 36 : 28} /></span
            >
            <span
              >{STATION_NAMES[path]}<span
                class="ml-1.5 font-mono text-[13px] font-medium max-[499px]:ml-0 max-[499px]:block max-[499px]:text-center"
                title="waiting here">{s?.waiting ? s.waiting : ''}</span
              ></span
            >
          </a>
        </li>
      {/each}
    </ol>
  </nav>
  <div class="ml-auto flex items-center text-sm min-[500px]:gap-2">
    <Finder {siteId} {station} />
    <Timers {siteId} />
    {#if welcome.data?.demo && session.role !== 'OFFICE'}<BenchPanel />{/if}
    <Unsent person={session.name} />
    <PersonMenu {session} />
    <Keys {siteId} mayWork={session.role !== 'OFFICE'} />
  </div>
</header>

<style>
  /* The cable that runs through the stations. */
  .stations ol::before {
    content: '';
    position: absolute;
    left: 0;
    right: 0;
    top: 18px;
    border-top: 2.6px solid var(--color-accent);
  }
  .stations a > span:first-child {
    display: grid;
    height: 36px;
    place-items: center;
  }
  .station {
    white-space: nowrap;
  }
  @media (max-width: 500px) {
    .station {
      font-size: 0.75rem;
    }
  }
  .next {
    border-bottom: 3px solid var(--color-accent);
  }
</style>
