<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { SvelteMap, SvelteSet } from 'svelte/reactivity';
  import { api, asProblem, freshKey, ok, type Schemas } from '../../api/client';
  import { endpointsQuery } from '../../api/queries';
  import Knot from '../../ui/Knot.svelte';
  import Loading from '../../ui/Loading.svelte';
  import Progress from '../../ui/Progress.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import OneCase from './OneCase.svelte';
  import { at } from '../../router';

  /** Several endpoints checked in one go, such as all tills. */
  let { siteId, mayWork }: { siteId: number; mayWork: boolean } = $props();
  const AT_ONCE = 4;
  type State = { status: Schemas['CheckStatusView']['status']; words: string };
  const client = useQueryClient();
  const all = createQuery(() => endpointsQuery(siteId));
  const ready = $derived((all.data ?? []).filter((e) => e.address && e.mac && e.serial));
  const kinds = $derived([...new Set(ready.map((e) => e.kind))]);
  let chosen = new SvelteSet<number>();
  let came = new SvelteMap<number, State>();
  let running = $state(0);
  let total = $state(0);
  let stop = $state(false);
  const kindName = (kind: string) => kind.replaceAll('-', ' ');

  function choose(kind: string) {
    const these = ready.filter((e) => e.kind === kind).map((e) => e.id);
    const every = these.every((id) => chosen.has(id));
    for (const id of these)
      if (every) chosen.delete(id);
      else chosen.add(id);
  }

  async function one(id: number) {
    came.set(id, { status: 'ACTIVE', words: 'asking…' });
    try {
      const line = await ok(
        api.POST('/api/endpoints/{id}/check-runs', { params: { path: { id }, header: freshKey() } }),
      );
      const bad = line.checks.find((r) => r.status === 'FAILED' && r.maker !== 'OFFICE');
      came.set(
        id,
        bad
          ? { status: 'FAILED', words: `${bad.title}: ${bad.note}` }
          : line.missing
            ? { status: 'ACTIVE', words: `A machine finds nothing wrong. ${line.missing}` }
            : { status: 'PASSED', words: 'All checks hold.' },
      );
    } catch (error) {
      came.set(id, { status: 'FAILED', words: asProblem(error).message });
    }
  }

  /** A few at once; what runs when it is stopped is let to its end. */
  async function check() {
    const queue = ready.map((e) => e.id).filter((id) => chosen.has(id));
    came.clear();
    told = '';
    total = queue.length;
    stop = false;
    running = queue.length;
    await Promise.all(
      Array.from({ length: AT_ONCE }, async () => {
        for (let id = queue.shift(); id && !stop; id = queue.shift()) {
          await one(id);
          running -= 1;
        }
      }),
    );
    running = 0;
    await client.invalidateQueries({ queryKey: ['site', siteId] });
    await client.invalidateQueries({ queryKey: ['endpoint'] });
  }
  /** What a caller says of those that were chosen, before anybody has looked. */
  const SAID: { word: Schemas['CaseMember']['word']; words: string }[] = [
    { word: 'DARK', words: 'They are dark' },
    { word: 'NO_JOB', words: 'They are on, and do not work' },
    { word: 'NO_INTERNET', words: 'They have no internet' },
  ];
  let told = $state<Schemas['CaseMember']['word'] | ''>('');
  let othersWork = $state(false);
  const MOST = 60;
  const failed = $derived([...came].filter(([, s]) => s.status === 'FAILED').map(([id]) => id));
  const weighed = $derived.by<Schemas['CaseMember'][]>(() => {
    if (told)
      return ready
        .filter((e) => chosen.has(e.id) || othersWork)
        .slice(0, MOST)
        .map((e) => ({ endpointId: e.id, word: chosen.has(e.id) && told ? told : 'WORKS' }));
    if (running || failed.length < 2) return [];
    return [...came.keys()].slice(0, MOST).map((endpointId) => ({ endpointId, word: 'CHECKED' }));
  });
  const held = $derived([...came.values()].filter((s) => s.status !== 'FAILED').length);
</script>

<h1>Check several together</h1>
{#if all.error}<Trouble problem={asProblem(all.error)} again={() => all.refetch()} />
{:else if !all.data}<Loading />
{:else if !ready.length}
  <p class="quiet mt-2">Nothing here has its address, MAC and serial on record yet.</p>
{:else}
  <p class="quiet mt-1">
    What a machine can check of each. What only eyes see is asked one by one afterwards.
  </p>
  {#if running}
    <div class="mt-4 flex max-w-xl items-end gap-4">
      <div class="flex-1">
        <Progress value={total - running} of={total} label="{total - running} of {total} checked" />
      </div>
      <button class="btn btn-outline btn-primary" disabled={stop} onclick={() => (stop = true)}>Stop</button>
    </div>
  {:else}
    {#if mayWork}<div class="mt-4 flex flex-wrap items-center gap-2">
        {#each kinds as kind (kind)}
          <button class="btn btn-outline btn-primary btn-sm" onclick={() => choose(kind)}
            >All: {kindName(kind)}</button
          >
        {/each}
      </div>{/if}
    {#if mayWork}
      <button class="btn mt-3 btn-primary" data-complete disabled={!chosen.size} onclick={check}
        >{chosen.size ? `Check ${chosen.size} together` : 'Choose some below'} <kbd>Space</kbd></button
      >
    {/if}
    {#if came.size}
      <p class="mt-3" role="status">
        {stop ? `Stopped after ${came.size} of ${total}. ` : ''}{held} of {came.size} without a fault.
      </p>
    {/if}
  {/if}
  {#if mayWork && chosen.size > 1 && !running}
    <details class="mt-3 max-w-3xl text-sm">
      <summary class="cursor-pointer font-semibold">Somebody calls and says that these fail</summary>
      <div class="mt-2 flex flex-wrap items-center gap-2">
        {#each SAID as s (s.word)}<button
            class="btn btn-sm {told === s.word ? 'btn-primary' : ''}"
            aria-pressed={told === s.word}
            onclick={() => (told = told === s.word ? '' : s.word)}>{s.words}</button
          >{/each}
        <label class="flex items-center gap-2"
          ><input type="checkbox" class="size-4" bind:checked={othersWork} />All others work</label
        >
      </div>
    </details>
  {/if}
  {#if weighed.length > 1}
    <OneCase
      {siteId}
      members={weighed}
      {mayWork}
      hint="Nothing says that these have one fault in common. Search each by itself."
    />
  {/if}
  <ul class="mt-4 max-w-3xl">
    {#each ready as e (e.id)}
      {@const state = came.get(e.id)}
      <li class="flex items-center gap-3 border-b border-base-300 py-2" data-one={e.name}>
        <input
          type="checkbox"
          class="size-5"
          aria-label="Check {e.name}"
          disabled={running > 0 || !mayWork}
          checked={chosen.has(e.id)}
          onchange={(event) => (event.currentTarget.checked ? chosen.add(e.id) : chosen.delete(e.id))}
        />
        <Knot state={state?.status ?? (e.status as 'PENDING')} />
        <span class="min-w-0 flex-1">
          <a class="link font-semibold" href={at(siteId, 'confirm', e.id)}>{e.name}</a>
          {#if state}<span class="block text-sm {state.status === 'FAILED' ? 'text-error' : 'quiet'}"
              >{state.words}</span
            >{/if}
        </span>
      </li>
    {/each}
  </ul>
{/if}
