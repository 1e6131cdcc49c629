<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { asProblem, api, ok, type Schemas } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import { siteQuery, sweepQuery } from '../../api/queries';
  import Figures from '../../ui/Figures.svelte';
  import Knot from '../../ui/Knot.svelte';
  import Loading from '../../ui/Loading.svelte';
  import Progress from '../../ui/Progress.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { dayTime } from '../../ui/time';
  import OneCase from './OneCase.svelte';
  import { at } from '../../router';

  /** Who is there in a whole segment, against the plan. */
  let { siteId, mayWork }: { siteId: number; mayWork: boolean } = $props();
  type Verdict = Schemas['SweepLine']['verdict'];
  const WORDS: Record<Verdict, { title: string; status: 'FAILED' | 'PENDING' | 'PASSED' | 'SKIPPED' }> = {
    TWO: { title: 'Two devices answer', status: 'FAILED' },
    OTHER_MAC: { title: 'Another device answers', status: 'FAILED' },
    MOVED: { title: 'At another address', status: 'FAILED' },
    SILENT: { title: 'Silent', status: 'PENDING' },
    STRANGER: { title: 'Strangers', status: 'FAILED' },
    AS_PLANNED: { title: 'There as planned', status: 'PASSED' },
    LEASED: { title: 'With a leased address', status: 'SKIPPED' },
  };
  const WORD: Partial<Record<Verdict, Schemas['CaseMember']['word']>> = {
    SILENT: 'SILENT',
    MOVED: 'MOVED',
    AS_PLANNED: 'ANSWERED',
  };
  const client = useQueryClient();
  const site = createQuery(() => siteQuery(siteId));
  let picked = $state(0);
  const change = useChange();
  const problem = $derived(change.problem);
  const segments = $derived(site.data?.segments ?? []);
  const segment = $derived(segments.find((s) => s.id === picked) ?? segments[0]);
  const latest = createQuery(() => ({ ...sweepQuery(segment?.id ?? 0), enabled: !!segment }));
  const sweep = $derived(latest.data?.sweep);
  const running = $derived(sweep?.state === 'RUNNING');
  const groups = $derived(
    (Object.keys(WORDS) as Verdict[])
      .map((verdict) => ({
        verdict,
        ...WORDS[verdict],
        lines: (sweep?.lines ?? []).filter((l) => l.verdict === verdict),
      }))
      .filter((g) => g.lines.length),
  );

  /** Those on record that were silent, with those that answered; a few silent ones are not worth a case. */
  const oneCase = $derived.by((): Schemas['CaseMember'][] => {
    const lines = (sweep?.lines ?? []).filter((l) => l.endpointId);
    const silent = lines.filter((l) => l.verdict === 'SILENT');
    if (sweep?.state !== 'DONE' || silent.length < 2) return [];
    const there = lines.filter((l) => WORD[l.verdict] && l.verdict !== 'SILENT');
    return [...silent, ...there]
      .slice(0, 60)
      .map((l) => ({ endpointId: l.endpointId, word: WORD[l.verdict] ?? 'ANSWERED' }));
  });

  async function act(call: Promise<Schemas['SweepAnswer']>) {
    await change.run(async () => {
      client.setQueryData(['segment', segment?.id, 'sweep'], await call);
    });
    await latest.refetch();
  }
  const here = () => ({ params: { path: { id: segment?.id ?? 0 } } });
</script>

<h1>Who is there</h1>
{#if site.error}<Trouble problem={asProblem(site.error)} again={() => site.refetch()} />
{:else if !site.data}<Loading />
{:else if !segment}
  <p class="quiet mt-2">
    No segment is on record. <a class="link" href={at(siteId, 'plan')}>Add one at Plan</a> first.
  </p>
{:else}
  <div class="mt-3 flex flex-wrap items-end gap-3">
    <label class="w-64 text-sm"
      >Segment<select
        class="select mt-1 w-full"
        value={segment.id}
        onchange={(e) => (picked = Number(e.currentTarget.value))}
        >{#each segments as s (s.id)}<option value={s.id}>{s.name}, {s.prefix}</option>{/each}</select
      ></label
    >
    {#if mayWork && latest.data}
      {#if running}
        <button
          class="btn btn-outline btn-primary"
          onclick={() => act(ok(api.DELETE('/api/segments/{id}/sweep', here())))}>Stop</button
        >
      {:else}
        <button
          class="btn btn-primary"
          data-complete
          onclick={() => act(ok(api.POST('/api/segments/{id}/sweep', here())))}
          >{sweep ? 'Ask again' : 'Ask every address'} <kbd>Space</kbd></button
        >
      {/if}
    {/if}
  </div>
  <Trouble {problem} />
  {#if latest.error && !latest.data}<Trouble
      problem={asProblem(latest.error)}
      again={() => latest.refetch()}
    />
  {:else if !latest.data}<Loading />
  {:else if !sweep}
    <p class="quiet mt-4">
      Every address of the segment is asked once. Who answers is compared with the plan: who is there, who is
      silent, and who is a stranger.
    </p>
  {:else if running}
    <div class="mt-5 max-w-xl">
      <Progress
        value={sweep.asked}
        of={sweep.total}
        label="{sweep.asked} of {sweep.total} asked, {sweep.answered} answer"
      />
    </div>
  {:else}
    <p class="mt-4 {sweep.state === 'DONE' ? 'quiet' : 'caution'}" role="status">
      {sweep.state === 'CUT_OFF'
        ? `The server was restarted in the middle: ${sweep.asked} of ${sweep.total} were asked. Ask again.`
        : sweep.state === 'CANCELLED'
          ? `Stopped after ${sweep.asked} of ${sweep.total}. Who was not asked is not listed.`
          : `${sweep.total} asked ${dayTime(sweep.startedAt)} by ${sweep.by}, from ${sweep.vantage}.`}
    </p>
    {#if oneCase.length && mayWork}<OneCase {siteId} members={oneCase} {mayWork} />{/if}
    <div class="mt-2 max-w-3xl">
      {#each groups as g (g.verdict)}
        <h2 class="mt-5 text-base">{g.title} <span class="quiet font-mono">{g.lines.length}</span></h2>
        <ul>
          {#each g.lines as l (l.address)}
            <li
              class="grid grid-cols-[auto_8.5rem_1fr] items-center gap-x-3 border-b border-base-300 py-2 max-sm:grid-cols-[auto_1fr]"
              data-swept={l.verdict}
            >
              <Knot state={g.status} />
              <Figures value={l.address} class="font-medium" />
              <span class="max-sm:col-start-2">
                {#if l.endpointId}<a class="link font-semibold" href={at(siteId, 'confirm', l.endpointId)}
                    >{l.name}</a
                  >{:else}<span class="font-semibold">{l.name}</span>{/if}
                <span class="quiet text-sm">{l.words}</span>
                {#if l.mac}<span class="block font-mono text-sm">{l.mac}</span>{/if}
              </span>
            </li>
          {/each}
        </ul>
      {/each}
    </div>
  {/if}
{/if}
