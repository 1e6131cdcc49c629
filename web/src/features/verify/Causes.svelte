<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { api, asProblem, ok, type Schemas } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import { diagnosisQuery } from '../../api/queries';
  import Answers from './Answers.svelte';
  import HowKnown from './HowKnown.svelte';
  import Mended from './Mended.svelte';
  import WayLine from './WayLine.svelte';
  import Loading from '../../ui/Loading.svelte';
  import Trouble from '../../ui/Trouble.svelte';

  /** What it can be, likeliest first, and the one thing to look at now that tells most. */
  let { siteId, endpointId, mayWork }: { siteId: number; endpointId: number; mayWork: boolean } = $props();
  const client = useQueryClient();
  const query = createQuery(() => diagnosisQuery(endpointId));
  const change = useChange();
  const problem = $derived(change.problem);
  const d = $derived(query.data);
  const first = $derived(d?.suspects[0]);
  const together = $derived(d?.suspects.filter((s) => s.group === first?.group) ?? []);
  // Once one is clearly ahead the long tail would only push the question out of sight.
  const shown = $derived(
    d?.found ? together : (d?.suspects ?? []).filter((s, i) => i === 0 || s.probability >= 0.03).slice(0, 4),
  );
  // What all of them explain is said once, so that the question stays in sight.
  const shared = $derived(
    shown.length > 1 ? (first?.explains ?? []).filter((e) => shown.every((s) => s.explains.includes(e))) : [],
  );
  const alike = $derived(
    [...new Set(shown.map((s) => s.group))]
      .map((group) => shown.filter((s) => s.group === group).map((s) => s.title))
      .filter((titles) => titles.length > 1),
  );
  // What nobody thought of stands among the causes, where its weight puts it.
  const listed = $derived(
    [
      ...shown.map((s) => ({ ...s, none: false })),
      ...(d && d.noneOfThese >= 0.03
        ? [{ title: 'None of these', probability: d.noneOfThese, explains: [], contradicts: [], none: true }]
        : []),
    ].sort((a, b) => b.probability - a.probability),
  );
  const own = (s: { explains: string[] }) => s.explains.filter((e) => !shared.includes(e));
  const percent = (p: number) =>
    p > 0 && p < 0.01 ? 'under 1%' : p > 0.99 ? 'over 99%' : Math.round(p * 100) + '%';
  const list = (words: string[]) =>
    words.map((w) => w.replace(/[.?]$/, '').replace(/^[A-Z](?![A-Z])/, (c) => c.toLowerCase())).join('; ');
  let noted = $state('');
  let evidence = $state<Schemas['ObservationRequest']['evidence']>('SEEN');

  async function wasIt(suspect: Schemas['SuspectView']) {
    const fault = suspect.faults[0];
    if (!fault) return;
    await change.run(async () => {
      await ok(
        api.POST('/api/endpoints/{id}/diagnosis/mended', {
          params: { path: { id: endpointId } },
          body: { fault },
        }),
      );
      noted = suspect.title;
      await query.refetch();
    });
  }

  async function look(
    outcome: Schemas['AnswerRequest']['outcome'],
    question: Schemas['AnswerRequest']['question'],
  ) {
    const queryKey = ['endpoint', endpointId, 'diagnosis'];
    await change.run(async () => {
      const params = { path: { id: endpointId } };
      const body = { question, outcome, evidence };
      const found = await ok(api.PUT('/api/endpoints/{id}/diagnosis/answers', { params, body }));
      // What was asked for before would be shown over it.
      await client.cancelQueries({ queryKey });
      client.setQueryData(queryKey, found);
      void client.invalidateQueries({ queryKey });
    });
  }
</script>

{#if query.error}
  <Trouble problem={asProblem(query.error)} again={() => query.refetch()} />
{:else if !d}
  <Loading />
{:else}
  <section aria-label="What it can be" aria-live="polite">
    <h2>{d.found ? 'What it is' : 'What it can be'}</h2>
    {#if shared.length}<p class="quiet text-sm">All of these fit what was seen: {list(shared)}.</p>{/if}
    {#if d.contradictory}
      <p class="caution mt-1">
        What was seen does not go together. {d.doubtful.length
          ? `Look once more: ${list(d.doubtful)}?`
          : 'Look once more.'}
      </p>
    {/if}
    <ol class="mt-1">
      {#each listed as s (s.title)}
        <li class="py-1.5" data-suspect={s.none ? undefined : ''}>
          <p class="flex items-baseline justify-between gap-3">
            <span class="font-semibold">{s.title}</span><span class="font-mono">{percent(s.probability)}</span
            >
          </p>
          <svg
            class="mt-1 block h-1.5 w-full"
            viewBox="0 0 100 1"
            preserveAspectRatio="none"
            aria-hidden="true"
            ><path d="M0 .5H100" stroke="var(--color-base-300)" /><path
              d="M0 .5H{s.probability * 100}"
              stroke="var(--color-base-content)"
            /></svg
          >
          {#if s.none}<p class="quiet text-sm">
              Something that is not on this list, or two things at once.
            </p>{/if}
          {#if own(s).length}<p class="quiet text-sm">It fits: {list(own(s))}.</p>{/if}
          {#if s.contradicts.length}<p class="quiet text-sm">It does not fit: {list(s.contradicts)}.</p>{/if}
        </li>
      {/each}
    </ol>
    {#each alike as titles (titles[0])}
      <p class="quiet text-sm">Nothing seen so far tells these apart: {list(titles)}.</p>
    {/each}
    {#if d.lately.length}<p class="quiet text-sm">
        Weighed with what was changed in the last days: {list(d.lately)}.
      </p>{/if}
    <WayLine way={d.way} />
  </section>
  {#if d.next && mayWork}
    <section class="mt-3 border-t-2 border-base-content pt-3" aria-label="Try now">
      <p class="quiet text-sm">
        Try now, {d.next.minutes < 1 ? 'under a minute' : `about ${Math.round(d.next.minutes)} min`}; it tells
        most
      </p>
      <h3 class="mt-1 text-xl leading-tight font-bold">{d.next.words}</h3>
      {#each d.next.signals as signal (signal)}<p class="quiet text-sm">{signal}</p>{/each}
      <Answers outcomes={d.next.outcomes} answer={(o) => d.next && look(o, d.next.question)} />
      <HowKnown bind:evidence />
      <button class="btn mt-2 btn-ghost" onclick={() => d.next && look('CANNOT_BE_TOLD', d.next.question)}
        >Cannot tell</button
      >
    </section>
  {/if}
  {#if first && (d.found || !d.next)}
    <section class="mt-3 border-t-2 border-base-content pt-3" aria-label="What to do">
      <h2>What to do</h2>
      {#if d.stop}<p class="mt-1 font-semibold">{d.stop}</p>{/if}
      <ol class="mt-1 list-decimal pl-5 text-[17px]">
        {#each new Set(together.slice(0, 3).flatMap((s) => s.remedy)) as way (way)}<li>{way}</li>{/each}
      </ol>
    </section>
  {/if}
  {#if first && mayWork}
    <section class="mt-3 border-t border-base-300 pt-3" aria-label="What it was">
      {#if noted}
        <p role="status">Noted: {noted}.</p>
      {:else}
        <p class="quiet text-sm">Mended? Say what it was, so that the next search here knows.</p>
        <div class="mt-1 flex flex-wrap gap-2">
          {#each shown.filter((s) => s.faults.length === 1).slice(0, 3) as s (s.title)}
            <button class="btn btn-sm" onclick={() => wasIt(s)}>It was: {s.title}</button>
          {/each}
        </div>
      {/if}
      <Mended {siteId} {endpointId} mended={d.mended} learns={d.learns} />
    </section>
  {/if}
  <details class="mt-4 text-sm">
    <summary class="cursor-pointer font-semibold"
      >How this was reached: {d.seen.length === 1 ? 'one thing' : `${d.seen.length} things`} seen</summary
    >
    <ul class="mt-1">
      {#each d.seen as s (s.question)}<li>{s.said}{s.eyes ? `, says ${s.by}` : ', measured'}.</li>{/each}
    </ul>
    {#if d.others >= 0.01}<p class="quiet mt-1">
        Left for everything else: {percent(d.others)}.
      </p>{/if}
  </details>
  <Trouble {problem} />
{/if}
