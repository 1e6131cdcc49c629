<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { api, asProblem, ok, type Schemas } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import Loading from '../../ui/Loading.svelte';
  import { serverClock } from '../../ui/now.svelte';
  import { dayTime, when } from '../../ui/time';
  import Trouble from '../../ui/Trouble.svelte';
  import HandsNow from './HandsNow.svelte';
  import PlanSaid from './PlanSaid.svelte';
  import { visitQuery } from './queries';
  import Strands from './Strands.svelte';
  import VisitAfter from './VisitAfter.svelte';
  import VisitBefore from './VisitBefore.svelte';
  import VisitForm from './VisitForm.svelte';

  /** One visit: before it the plan, during it what to do now, after it how it went. */
  let {
    id,
    siteId,
    mayWork,
    kept,
    back,
  }: {
    id: number;
    siteId: number;
    mayWork: boolean;
    kept: (id: number) => void;
    back: () => void;
  } = $props();
  const client = useQueryClient();
  const change = useChange();
  /** The plan that moves by itself holds up nobody who presses something meanwhile. */
  const moving = useChange();
  const visit = createQuery(() => visitQuery(id));
  let editing = $state(false);
  let before = $state(false);
  let again = $state(false);
  const v = $derived(visit.data);
  const version = $derived({ 'If-Match': `"${v?.version ?? 0}"` });

  const run = (call: () => Promise<Schemas['VisitView']>) =>
    change.run(async () => {
      client.setQueryData(['visit', id], await call());
      void client.invalidateQueries({ queryKey: ['site', siteId, 'visits'] });
    });
  const params = $derived({ path: { id }, header: version });
  const replan = () => run(() => ok(api.POST('/api/visits/{id}/plan', { params: { path: { id } } })));
  /** Nobody took the next turn in its time: the plan moves by itself, once for each. */
  let moved = '';
  $effect(() => {
    if (!v?.behind || !mayWork || change.busy || !v.plan || v.plan.from === moved) return;
    moved = v.plan.from;
    void moving.run(async () => {
      await ok(api.POST('/api/visits/{id}/plan', { params: { path: { id } } }));
      await visit.refetch();
    });
  });
  const begin = () => run(() => ok(api.POST('/api/visits/{id}/begin', { params })));
  const end = () => run(() => ok(api.POST('/api/visits/{id}/end', { params })));
</script>

{#if visit.error && !v}
  <Trouble problem={asProblem(visit.error)} again={() => visit.refetch()} />
{:else if !v}
  <Loading />
{:else if again}
  <h1>A new visit</h1>
  <VisitForm {siteId} left={v} {kept} leave={() => (again = false)} />
{:else if editing}
  <h1>{v.head.name}</h1>
  <VisitForm {siteId} visit={v} kept={() => (editing = false)} leave={() => (editing = false)} />
{:else}
  <div class="flex flex-wrap items-center gap-3">
    <h1 class="mr-auto">{v.head.name}</h1>
    {#if mayWork && v.head.state !== 'OVER'}
      <button class="btn btn-ghost btn-sm" onclick={() => (before = !before)}
        >{before ? 'To the plan' : 'What goes along'}</button
      >
      <button class="btn btn-ghost btn-sm" onclick={() => (editing = true)}>Change it</button>
      <button class="btn btn-ghost btn-sm" disabled={change.busy} onclick={replan}
        >{change.busy ? 'Working it out…' : 'Plan anew from now'}</button
      >
      {#if v.head.state === 'PLANNED'}
        <button class="btn btn-primary btn-sm" disabled={change.busy || !v.plan} onclick={begin}
          >Begin the visit</button
        >
      {:else}
        <button class="btn btn-sm" disabled={change.busy} onclick={end}>End the visit</button>
      {/if}
    {/if}
    <button class="btn btn-ghost btn-sm" onclick={back}>All visits</button>
  </div>
  <p class="quiet text-sm">
    {v.head.state === 'OVER' && v.endedAt
      ? `Over since ${when(v.endedAt, serverClock.millis)}`
      : v.head.state === 'RUNNING' && v.beganAt
        ? `Running since ${when(v.beganAt, serverClock.millis)}`
        : `Begins ${dayTime(v.head.begins)}`}{v.head.due
      ? `, everything must be done by ${dayTime(v.head.due)}`
      : ''}
  </p>
  <Trouble problem={change.problem ?? moving.problem} />
  {#if v.head.state === 'RUNNING'}<HandsNow visit={v} {mayWork} {run} busy={change.busy} />{/if}
  {#if v.head.state === 'OVER'}<VisitAfter visit={v} again={mayWork ? () => (again = true) : undefined} />
  {:else if before}<VisitBefore visit={v} />
  {:else if v.plan}
    <PlanSaid visit={v} plan={v.plan} />
    <Strands visit={v} plan={v.plan} />
  {:else}
    <p class="mt-4">
      There is no plan yet. <button class="link text-primary" onclick={replan}>Work it out</button>
    </p>
  {/if}
{/if}
