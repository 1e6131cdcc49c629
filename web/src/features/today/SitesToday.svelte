<script lang="ts">
  import type { Schemas } from '../../api/client';
  import Knot from '../../ui/Knot.svelte';
  import { at, STATION_NAMES, WAITING_AT, type StationPath } from '../../router';

  /** What waits at which station of which site. */
  let { sites }: { sites: Schemas['SiteToday'][] } = $props();
  type Waiting = keyof Schemas['SiteToday']['waiting'];
  const of = (s: Schemas['SiteToday'], path: StationPath) => s.waiting[path.toUpperCase() as Waiting] ?? 0;
</script>

<table class="table [&_td]:px-2 [&_th]:px-2">
  <thead>
    <tr
      ><th>Site</th>{#each WAITING_AT as path (path)}<th class="text-right">{STATION_NAMES[path]}</th
        >{/each}<th class="max-[600px]:hidden">Next</th></tr
    >
  </thead>
  <tbody>
    {#each sites as s (s.siteId)}
      {@const next = s.next?.toLowerCase() as StationPath | undefined}
      <tr>
        <td><a class="font-semibold hover:underline" href={at(s.siteId, next ?? 'plan')}>{s.site}</a></td>
        {#each WAITING_AT as path (path)}
          <td class="text-right font-mono">
            {#if of(s, path)}<a
                class="hover:underline {path === next ? 'font-bold' : ''}"
                href={at(s.siteId, path)}
                aria-label="{of(s, path)} wait at {STATION_NAMES[path]} of {s.site}">{of(s, path)}</a
              >{:else}<span class="quiet">0</span>{/if}
          </td>
        {/each}
        <td class="max-[600px]:hidden">
          <span class="flex items-center gap-2 text-sm">
            <Knot state={s.broken ? 'FAILED' : next ? 'ACTIVE' : 'PASSED'} size={20} />
            {next ? STATION_NAMES[next] : 'Nothing waits'}{s.broken ? ', something failed' : ''}
          </span>
        </td>
      </tr>
    {/each}
  </tbody>
</table>
