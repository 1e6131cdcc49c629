<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, asProblem, ok, type Schemas } from '../../api/client';
  import Loading from '../../ui/Loading.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { dayOf, hourOf } from '../../ui/time';
  import { siteClock } from '../../ui/siteClock.svelte';
  import { at } from '../../router';
  import { logbookQuery, logChoicesQuery, type Asked } from './queries';
  import LogDetail from './LogDetail.svelte';

  /** Everything that happened at the site, the latest first, found by any fragment, by who did it and by what it was. */
  let { siteId }: { siteId: number } = $props();
  let asked = $state<Asked>({ q: '', person: '', action: '', upTo: undefined });
  const lines = createQuery(() => logbookQuery(siteId, { ...asked }));
  const choices = createQuery(() => logChoicesQuery(siteId));
  type Line = Schemas['LogLine'];
  let more = $state.raw<{ of: string; lines: Line[]; end: boolean }>({ of: '', lines: [], end: false });
  const key = $derived(JSON.stringify(asked));
  const all = $derived([...(lines.data ?? []), ...(more.of === key ? more.lines : [])]);
  const ended = $derived((lines.data?.length ?? 0) < 100 || (more.of === key && more.end));
  const day = (iso: string) =>
    new Intl.DateTimeFormat('en-CA', { timeZone: siteClock.zone, dateStyle: 'short' }).format(new Date(iso));
  const newDay = (i: number) => i === 0 || day(all[i - 1]?.at ?? '') !== day(all[i]?.at ?? '');

  async function older() {
    const below = all.at(-1)?.id;
    const next = await ok(
      api.GET('/api/sites/{siteId}/logbook', {
        params: { path: { siteId }, query: { ...asked, below } },
      }),
    );
    more = { of: key, lines: [...(more.of === key ? more.lines : []), ...next], end: next.length < 100 };
  }
</script>

<div class="flex flex-wrap items-center gap-x-4 gap-y-1">
  <h1 class="mr-auto">Logbook</h1>
  <a class="link text-sm" href="/api/sites/{siteId}/log.csv" download>All of it as CSV</a>
  <a class="link text-sm" href="/api/sites/{siteId}/log.json" download>as JSON, with its hashes</a>
</div>
<div class="mt-3 flex flex-wrap items-end gap-3">
  <div class="min-w-56 flex-1">
    <label class="field-label" for="piece">Any piece of it</label>
    <input
      id="piece"
      class="input w-full"
      bind:value={asked.q}
      placeholder="an address, a MAC, a name, a reason"
      autocomplete="off"
    />
  </div>
  <div>
    <label class="field-label" for="day">Up to the day</label>
    <input
      id="day"
      type="date"
      class="input"
      bind:value={() => asked.upTo ?? '', (day) => (asked.upTo = day || undefined)}
    />
  </div>
  <div>
    <label class="field-label" for="who">By whom</label>
    <select id="who" class="select" bind:value={asked.person}>
      <option value="">anybody</option>
      {#each choices.data?.people ?? [] as p (p.what)}<option value={p.what}>{p.what} ({p.entries})</option
        >{/each}
    </select>
  </div>
  <div>
    <label class="field-label" for="kind">What</label>
    <select id="kind" class="select" bind:value={asked.action}>
      <option value="">anything</option>
      {#each choices.data?.actions ?? [] as a (a.what)}<option value={a.what}>{a.what} ({a.entries})</option
        >{/each}
    </select>
  </div>
</div>
{#if lines.error}
  <Trouble problem={asProblem(lines.error)} again={() => lines.refetch()} />
{:else if !lines.data}
  <Loading />
{:else}
  <ol class="mt-4" aria-label="Entries of the log">
    {#each all as line, i (line.id)}
      {#if newDay(i)}<li class="mt-4 border-b-2 border-base-content pb-0.5 font-bold">
          {dayOf(day(line.at))}
        </li>{/if}
      <li class="grid grid-cols-[4rem_minmax(0,1fr)] gap-x-3 border-b border-base-300 py-1.5">
        <span class="quiet font-mono text-sm">{hourOf(line.at)}</span>
        <div class="min-w-0">
          {line.action}{#if line.endpoint && line.endpointId}: <a
              class="link"
              href={at(siteId, 'plan', line.endpointId)}>{line.endpoint}</a
            >{:else if line.about}: {line.about}{/if}
          <span class="quiet text-sm">by {line.person}</span>
          <LogDetail before={line.before} after={line.after} />
          {#if line.reason}<p class="text-sm">{line.reason}</p>{/if}
        </div>
      </li>
    {:else}
      <li>Nothing in the log is like that. Try another piece.</li>
    {/each}
  </ol>
  {#if all.length && !ended}<button class="btn mt-4 btn-outline btn-primary btn-sm" onclick={older}
      >Older entries</button
    >{/if}
{/if}
