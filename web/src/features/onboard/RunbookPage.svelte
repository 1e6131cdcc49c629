<script lang="ts">
  import { tick, untrack } from 'svelte';
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { asProblem, type Problem, type Schemas } from '../../api/client';
  import { factsDid, openingDid, outbox, withUnsent, type Unsent } from '../../api/outbox.svelte';
  import { runbookQuery, sessionQuery } from '../../api/queries';
  import Loading from '../../ui/Loading.svelte';
  import Outfit from './Outfit.svelte';
  import Questions from './Questions.svelte';
  import { slipped } from './readBack';
  import { runbookCalls, type Call } from './runbookCalls';
  import ReportedSeals from './ReportedSeals.svelte';
  import ResetSheet from './ResetSheet.svelte';
  import { serverClock } from '../../ui/now.svelte';
  import Steps from '../../ui/Steps.svelte';
  import { minutes } from '../../ui/time';
  import Trouble from '../../ui/Trouble.svelte';
  import { at } from '../../router';
  import StepNotes from './StepNotes.svelte';
  import StepPanel from './StepPanel.svelte';

  let { endpoint, mayWork }: { endpoint: { data: Schemas['EndpointView']; etag: string }; mayWork: boolean } =
    $props();
  const client = useQueryClient();
  const id = $derived(endpoint.data.id);
  const calls = $derived(runbookCalls(id));
  const session = createQuery(() => sessionQuery);
  const runbook = createQuery(() => runbookQuery(id));
  let looked = $state<string | null>(null);
  let problem = $state<Problem | null>(null);
  let acting = false;
  /** The step at which somebody stood when a colleague did it. */
  let passed = $state<string | null>(null);
  const unsent = $derived(outbox.of(id));
  const book = $derived(runbook.data && withUnsent(runbook.data.data, unsent));
  const current = $derived(looked ?? book?.current ?? book?.steps.at(-1)?.key ?? null);
  const noted = $derived(unsent.find((u) => u.did.what === 'step' && u.did.key === current));
  const step = $derived(book?.steps.find((s) => s.key === current));
  const position = $derived((book?.steps.findIndex((s) => s.key === current) ?? 0) + 1);
  const then = $derived(
    book?.steps.slice(position).find((s) => s.status !== 'PASSED' && s.status !== 'SKIPPED'),
  );
  const lines = $derived(
    (book?.steps ?? []).map((s) => ({
      ...s,
      note: s.startedAt
        ? minutes(
            (s.endedAt
              ? Date.parse(s.endedAt) - Date.parse(s.startedAt)
              : serverClock.millis - Date.parse(s.startedAt)) / 60_000,
          )
        : s.reason || undefined,
    })),
  );

  // Whoever is at a step stays there when somebody else does it, instead of finding another one under the hands.
  let stood = { id: 0, key: '' };
  $effect.pre(() => {
    const was = stood;
    stood = { id, key: book?.current ?? '' };
    const left = was.id === id && was.key !== stood.key && book?.steps.find((s) => s.key === was.key);
    const byOther = left && ['PASSED', 'SKIPPED'].includes(left.status) && left.by !== session.data?.name;
    if (byOther && !acting && untrack(() => !looked)) looked = passed = was.key;
  });
  const others = $derived(step && step.key === passed && step.by !== session.data?.name ? step : null);

  /** Changes the runbook from the version that was seen; returns what was refused, and keeps the page as it is. */
  async function change(call: Call): Promise<Problem | null> {
    if (!runbook.data) return null;
    acting = true;
    try {
      client.setQueryData(['endpoint', id, 'runbook'], await call({ 'If-Match': runbook.data.etag }));
      problem = null;
    } catch (error) {
      problem = asProblem(error);
      await client.invalidateQueries({ queryKey: ['endpoint', id, 'runbook'] });
    }
    await client.invalidateQueries({ queryKey: ['endpoint', id], exact: true });
    await client.invalidateQueries({ queryKey: ['site', endpoint.data.siteId] });
    await client.invalidateQueries({ queryKey: ['running'] });
    await tick();
    acting = false;
    return problem;
  }

  /** Does it, or keeps it on this device when the server is out of reach, or something waits that was done before it. */
  async function doOrKeep(call: Call, did: Unsent['did'], slip?: () => Promise<Problem | null>) {
    const behind = unsent.length > 0;
    const refused = behind ? null : await change(call);
    if (!behind && refused?.status !== 0) return !refused;
    const slipped = (await slip?.()) ?? null;
    if (slipped) return ((problem = slipped), false);
    await outbox.note(endpoint.data, did);
    problem = null;
    if (behind) void outbox.send(client);
    return true;
  }
  const facts = async (values: Record<string, string>) =>
    !!book && (await doOrKeep(calls.facts(values), factsDid(book, values)));
  const keepOpening = async (key: string, body: Schemas['OpeningRequest']) =>
    !!book && (await doOrKeep(calls.opening(key, body), openingDid(book, key, body)));
  const reset = (why: string, backup: string) => change(calls.reset(why, backup));
  const latest = () => change(calls.latest());

  async function act(
    action: Schemas['StepRequest']['action'],
    evidence: Record<string, string> = {},
    reason = '',
  ) {
    if (!step || !book) return false;
    const { key, title } = step;
    const call = calls.step(key, { action, evidence, reason });
    const [stood, at] = [step, book];
    const slip = async () =>
      action === 'COMPLETE' ? await slipped(stood, at, endpoint.data, evidence) : null;
    // Taking back and restarting are only for what stands at the server.
    const kept =
      action === 'REOPEN' || action === 'RESTARTED'
        ? !(await change(call))
        : await doOrKeep(call, { what: 'step', key, title, action, evidence: { ...evidence }, reason }, slip);
    if (!kept) return false;
    const status = book?.steps.find((s) => s.key === key)?.status;
    const done = status === 'PASSED' || status === 'SKIPPED';
    looked = done ? null : key;
    return done;
  }
</script>

{#if runbook.error}
  <Trouble problem={asProblem(runbook.error)} again={() => runbook.refetch()} />
{:else if !book || !step}
  <Loading />
{:else}
  <div class="grid gap-6 md:grid-cols-[215px_minmax(0,1fr)]">
    <div class="max-md:order-2">
      <p class="quiet mb-2 text-sm">Step {position} of {book.steps.length}</p>
      <Steps
        steps={lines}
        {current}
        label="Steps of the runbook"
        choose={(key) => ((looked = key), (problem = null))}
      />
      <Outfit {book} />
      <a
        class="mt-4 block border-t border-base-300 pt-3 text-sm font-semibold"
        href="{at(endpoint.data.siteId, 'onboard', 'worksheets')}?endpoint={id}">Worksheets</a
      >
      {#if mayWork && book.reset}<ResetSheet rule={book.reset} name={endpoint.data.name} {reset} />{/if}
    </div>
    <div class="min-w-0">
      {#if book.kindVersion < book.latestVersion}
        <p class="caution mb-4">
          This runbook goes by version {book.kindVersion} of its kind; there is version {book.latestVersion}.
          {#if mayWork}<button class="link" onclick={latest}>Go over to it</button>; what is done stays done.{/if}
        </p>
      {/if}
      {#if position === 1}
        <Questions questions={book.questions} {mayWork} answer={(values) => void facts(values)} />
        {#if book.reportsSeals && mayWork}<ReportedSeals facts={book.facts} keep={facts} />{/if}
      {/if}
      <StepNotes {others} {noted} goOn={() => (looked = null)} then={then?.title} />
      {#key step.key}<StepPanel {step} {book} {endpoint} {mayWork} {act} {keepOpening} />{/key}
      <Trouble {problem} />
      {#if then}<p class="quiet mt-8 border-t border-base-300 pt-2">Then: {then.title}</p>{/if}
    </div>
  </div>
{/if}
