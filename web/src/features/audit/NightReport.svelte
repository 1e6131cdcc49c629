<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, asProblem, ok } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import Loading from '../../ui/Loading.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { dayOf, dayTime } from '../../ui/time';
  import ToldLine from './ToldLine.svelte';
  import { nightQuery } from './queries';

  /** What one night found: what is new, what stands as before, what is well again, and what nobody looked at. */
  let { siteId, nightId }: { siteId: number; nightId: number } = $props();
  const report = createQuery(() => nightQuery(nightId));
  const change = useChange(() => [['night', nightId], ['site', siteId, 'nights'], ['today']]);
  const night = $derived(report.data?.night);
  const GROUPS = { NEW: 'New', STILL: 'As before', WELL: 'Well again' } as const;
  const of = (news: string) => report.data?.lines.filter((l) => l.news === news) ?? [];
  const read = () =>
    change.run(() => ok(api.PUT('/api/nights/{nightId}/read', { params: { path: { nightId } } })));
</script>

{#if report.error}
  <Trouble problem={asProblem(report.error)} again={() => report.refetch()} />
{:else if !report.data || !night}
  <Loading />
{:else}
  <section aria-label="Report">
    <h2 class="text-xl">
      {night.morning ? `The night to ${dayOf(night.morning)}` : `Looked at ${dayTime(night.startedAt)}`}
    </h2>
    <p class="mt-1 text-lg" role="status">{night.words}</p>
    <p class="quiet text-sm">
      {report.data.looked === 1 ? 'One look' : `${report.data.looked} looks`} by {night.by}, {dayTime(
        night.startedAt,
      )} to {night.endedAt ? dayTime(night.endedAt) : 'now'}.
    </p>
    {#each Object.entries(GROUPS) as [news, title] (news)}
      {#if of(news).length}
        <h3 class="mt-4 font-bold">{title}</h3>
        <ul aria-label={title}>
          {#each of(news) as l, i (i)}
            <ToldLine {siteId} line={l} />
          {/each}
        </ul>
      {/if}
    {/each}
    {#if report.data.more}<p class="mt-2">And {report.data.more} more.</p>{/if}
    {#if report.data.left.length}
      <h3 class="mt-4 font-bold">Not looked at</h3>
      <ul aria-label="Not looked at">
        {#each report.data.left as l (l.why)}
          <li class="border-b border-base-300 py-2">
            {l.why}
            <span class="quiet block text-sm">
              {l.what.slice(0, 5).join(', ')}{l.what.length > 5 ? ` and ${l.what.length - 5} more` : ''}</span
            >
          </li>
        {/each}
      </ul>
    {/if}
    {#if night.morning && night.tells && !night.read}
      <button class="btn mt-4 btn-primary" onclick={read} disabled={change.busy}>I have read it</button>
    {/if}
    <Trouble problem={change.problem} />
  </section>
{/if}
