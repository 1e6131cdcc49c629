<script lang="ts">
  import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
  import { useChange } from '../../api/change.svelte';
  import { api, asProblem, ok, type Schemas } from '../../api/client';
  import Answers from './Answers.svelte';
  import Trouble from '../../ui/Trouble.svelte';

  /** Several that fail at the same time: whether that is one case, and where to look first. */
  let {
    siteId,
    members,
    mayWork,
    hint = '',
  }: { siteId: number; members: Schemas['CaseMember'][]; mayWork: boolean; hint?: string } = $props();
  /** What was seen while this is open; with a run of checks it is kept there, and read from there. */
  type Seen = Schemas['CaseAnswer'] & { checkRunIds: number[] };
  let seen = $state<Seen[]>([]);
  const change = useChange(() => [['site', siteId, 'case'], ['endpoint']]);
  const body = $derived({
    members,
    answers: seen.map(({ question, outcome, endpointIds }) => ({ question, outcome, endpointIds })),
  });
  const query = createQuery(() => ({
    queryKey: ['site', siteId, 'case', body],
    queryFn: () => ok(api.POST('/api/sites/{siteId}/case', { params: { path: { siteId } }, body })),
    placeholderData: keepPreviousData,
  }));
  const c = $derived(query.data);
  const first = $derived(c?.suspects[0]);
  const last = $derived(seen.at(-1));
  const percent = (p: number) => (p > 0.99 ? 'over 99%' : Math.round(p * 100) + '%');
  const params = $derived({ path: { siteId } });
  const answer = (outcome: Schemas['OutcomeView']['outcome'], next: Schemas['CaseNext']) =>
    change.run(async () => {
      const { question, endpointIds, checkRunIds } = next;
      if (checkRunIds.length)
        await ok(
          api.PUT('/api/sites/{siteId}/case/answers', { params, body: { question, outcome, checkRunIds } }),
        );
      seen = [...seen, { question, outcome, endpointIds, checkRunIds }];
    });
  const takeBack = ({ question, checkRunIds }: Seen) =>
    change.run(async () => {
      if (checkRunIds.length)
        await ok(
          api.DELETE('/api/sites/{siteId}/case/answers/{question}', {
            params: { path: { siteId, question }, query: { checkRunIds } },
          }),
        );
      seen = seen.slice(0, -1);
    });
</script>

{#if query.error}<Trouble problem={asProblem(query.error)} again={() => query.refetch()} />
{:else if c?.oneCase && first}
  <section
    class="mt-4 max-w-3xl border-t-2 border-base-content pt-3"
    aria-label="One case"
    aria-live="polite"
  >
    <h2>{c.found ? 'It is one case' : 'This looks like one case'}</h2>
    <p class="mt-1 text-[17px]">{first.says}</p>
    <ol class="mt-2">
      {#each c.suspects as s (s.title + s.says)}
        <li class="flex items-baseline justify-between gap-3 py-0.5" data-shared>
          <span class="font-semibold">{s.title}</span><span class="font-mono">{percent(s.probability)}</span>
        </li>
      {/each}
      {#if c.apart >= 0.01}
        <li class="quiet flex items-baseline justify-between gap-3 py-0.5">
          <span>Each has a fault of its own</span><span class="font-mono">{percent(c.apart)}</span>
        </li>
      {/if}
    </ol>
    {#if c.next && mayWork}
      <p class="quiet mt-3 text-sm">Try now, at {c.next.at}; it tells most</p>
      <h3 class="mt-1 text-xl leading-tight font-bold">{c.next.words}</h3>
      <Answers outcomes={c.next.outcomes} answer={(o) => c.next && answer(o, c.next)} keys={false} />
    {:else if first.probability >= 0.5}
      <h3 class="mt-3">What to do</h3>
    {/if}
    {#if first.probability >= 0.5}
      <p class="quiet mt-3 text-sm">
        {c.next
          ? 'What to do then, before each is searched by itself:'
          : 'Before each is searched by itself:'}
      </p>
      <ol class="list-decimal pl-5">
        {#each first.remedy as way (way)}<li>{way}</li>{/each}
        {#if first.call}<li>Call {first.call}.</li>{/if}
      </ol>
    {/if}
    <Trouble problem={change.problem} />
    {#if last}
      <button class="btn mt-2 btn-ghost btn-sm" disabled={change.busy} onclick={() => takeBack(last)}
        >Take the last answer back</button
      >
    {/if}
  </section>
{:else if c && hint}
  <p class="quiet mt-3 text-sm">{hint}</p>
{/if}
