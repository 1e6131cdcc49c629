<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { searchParams } from 'sv-router';
  import { asProblem } from '../../api/client';
  import Loading from '../../ui/Loading.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { at, changeAt, go } from '../../router';
  import ImpactSteps from './ImpactSteps.svelte';
  import ImpactVisit from './ImpactVisit.svelte';
  import { changesQuery, impactQuery } from './queries';

  /** What a change would touch, before anybody makes it: nothing is changed here. */
  let { siteId, mayWork }: { siteId: number; mayWork: boolean } = $props();
  const changes = createQuery(() => changesQuery(siteId));
  const asked = $derived({
    change: searchParams.get('change')?.toString() ?? '',
    subject: searchParams.get('subject')?.toString() ?? '',
  });
  const chosen = $derived(changes.data?.find((c) => c.change === asked.change));
  const impact = createQuery(() => impactQuery(siteId, chosen?.change, asked.subject));
  const wrong = $derived(impact.error ? asProblem(impact.error) : undefined);
  const subject = $derived(chosen?.subjects.find((s) => s.key === asked.subject));

  function choose(change: string) {
    const only = changes.data?.find((c) => c.change === change)?.subjects;
    void go(changeAt(siteId, { change, subject: only?.length === 1 ? (only[0]?.key ?? '') : '' }));
  }
</script>

<h1>What if</h1>
{#if changes.error}
  <Trouble problem={asProblem(changes.error)} again={() => changes.refetch()} />
{:else if !changes.data}
  <Loading />
{:else}
  <p class="mt-1 max-w-3xl">
    Choose a change, and see what rests on it: what to set, in which order, and what to prove again. Nothing
    is changed by looking.
  </p>
  <div class="mt-3 flex max-w-4xl flex-wrap gap-3">
    <div class="min-w-64 flex-1">
      <label class="field-label" for="change">What changes</label>
      <select
        id="change"
        class="select w-full"
        value={asked.change}
        onchange={(e) => choose(e.currentTarget.value)}
      >
        <option value="" disabled>Choose one</option>
        {#each changes.data as c (c.change)}
          <option value={c.change} disabled={c.subjects.length === 0}
            >{c.words}{c.subjects.length === 0 ? ' (none on record)' : ''}</option
          >
        {/each}
      </select>
    </div>
    {#if chosen && chosen.subjects.length > 1}
      <div class="min-w-64 flex-1">
        <label class="field-label" for="subject">Which</label>
        <select
          id="subject"
          class="select w-full"
          value={asked.subject}
          onchange={(e) => go(changeAt(siteId, { change: asked.change, subject: e.currentTarget.value }))}
        >
          <option value="" disabled>Choose one of {chosen.subjects.length}</option>
          {#each chosen.subjects as s (s.key)}<option value={s.key}>{s.name}</option>{/each}
        </select>
      </div>
    {/if}
  </div>
  {#if wrong}
    <Trouble problem={wrong} again={wrong.status === 422 ? undefined : () => impact.refetch()} />
  {:else if chosen && asked.subject && !impact.data}
    <Loading />
  {:else if impact.data && chosen}
    <p class="mt-5 max-w-4xl text-lg" role="status">{impact.data.says}</p>
    {#if chosen.change === 'NETWORK'}
      <p class="mt-1">
        The new addresses are worked out in <a class="link" href={at(siteId, 'plan', 'renumber')}
          >Plan, Renumber</a
        >.
      </p>
    {/if}
    <div class="mt-4 grid gap-x-10 gap-y-6 lg:grid-cols-[minmax(0,2fr)_minmax(0,1fr)]">
      <ImpactSteps {siteId} steps={impact.data.steps} />
      <div class="grid content-start gap-6">
        {#if impact.data.unknown.length}
          <section aria-labelledby="unknown">
            <h2 id="unknown" class="font-bold">What no record says</h2>
            <ul class="mt-1 grid gap-2">
              {#each impact.data.unknown as u (u)}<li>{u}</li>{/each}
            </ul>
          </section>
        {/if}
        {#if mayWork}
          {#key asked.change + asked.subject}
            <ImpactVisit
              {siteId}
              name={chosen.words + (subject && chosen.subjects.length > 1 ? `: ${subject.name}` : '')}
              errands={impact.data.errands}
            />
          {/key}
        {/if}
      </div>
    </div>
  {/if}
{/if}
