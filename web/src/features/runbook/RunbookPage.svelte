<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { api, asProblem, okWithTag, type Problem, type Schemas } from '../../api/client';
  import { runbookQuery } from '../../api/queries';
  import Loading from '../../ui/Loading.svelte';
  import { serverClock } from '../../ui/now.svelte';
  import Steps from '../../ui/Steps.svelte';
  import { minutes } from '../../ui/time';
  import Trouble from '../../ui/Trouble.svelte';
  import StepPanel from './StepPanel.svelte';

  let { endpoint, mayWork }: { endpoint: { data: Schemas['EndpointView']; etag: string }; mayWork: boolean } =
    $props();
  const client = useQueryClient();
  const id = $derived(endpoint.data.id);
  const runbook = createQuery(() => runbookQuery(id));
  let looked = $state<string | null>(null);
  let problem = $state<Problem | null>(null);
  const book = $derived(runbook.data?.data);
  const current = $derived(looked ?? book?.current ?? book?.steps.at(-1)?.key ?? null);
  const step = $derived(book?.steps.find((s) => s.key === current));
  const position = $derived((book?.steps.findIndex((s) => s.key === current) ?? 0) + 1);
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

  $effect(() => {
    if (book) serverClock.set(book.now);
  });

  async function act(
    action: Schemas['StepRequest']['action'],
    evidence: Record<string, string> = {},
    reason = '',
  ) {
    if (!step || !runbook.data) return;
    const key = step.key;
    try {
      const done = await okWithTag(
        api.PUT('/api/endpoints/{id}/runbook/steps/{key}', {
          params: { path: { id, key }, header: { 'If-Match': runbook.data.etag } },
          body: { action, evidence, reason },
        }),
      );
      client.setQueryData(['endpoint', id, 'runbook'], done);
      problem = null;
      const knot = done.data.steps.find((s) => s.key === key)?.knot;
      looked = knot === 'TIGHT' || knot === 'LEFT_OUT' ? null : key;
    } catch (error) {
      problem = asProblem(error);
      await client.invalidateQueries({ queryKey: ['endpoint', id, 'runbook'] });
    }
    await client.invalidateQueries({ queryKey: ['endpoint', id], exact: true });
    await client.invalidateQueries({ queryKey: ['site', endpoint.data.siteId] });
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
    </div>
    <div class="min-w-0">
      {#key step.key}<StepPanel {step} {book} {endpoint} {mayWork} {act} />{/key}
      <Trouble {problem} />
    </div>
  </div>
{/if}
