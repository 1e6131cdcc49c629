<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { asProblem } from '../../api/client';
  import Knot from '../../ui/Knot.svelte';
  import Loading from '../../ui/Loading.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import Hands from './Hands.svelte';
  import PracticeCase from './PracticeCase.svelte';
  import PracticeRecord from './PracticeRecord.svelte';
  import { practiceQuery } from './queries';

  /** Cases to get good at before it counts: those made with care, and drawn ones without end. */
  const practice = createQuery(() => practiceQuery);
  let chosen = $state<string | null>(null);
  /** The same case once more begins anew. */
  let round = $state(0);
  let hands = $state<number | null>(null);
  const cases = $derived(practice.data?.cases ?? []);
  const next = $derived(practice.data?.next);
  const some = () => Math.floor(Math.random() * 1_000_000);
  const drawn = () => 'drawn-' + some();
  const play = (id: string | null) => ((chosen = id), round++);
  const percent = (share: number) => Math.round(share * 100);
</script>

{#if practice.error && !practice.data}
  <Trouble problem={asProblem(practice.error)} again={() => practice.refetch()} />
{:else if !practice.data}
  <Loading />
{:else if hands !== null}
  {#key hands}
    <Hands round={hands} leave={() => (hands = null)} again={() => (hands = some())} />
  {/key}
{:else if chosen}
  {#key round}
    <PracticeCase id={chosen} {play} />
  {/key}
{:else}
  <div class="flex flex-wrap items-end justify-between gap-3">
    <div>
      <h1>Practice</h1>
      <p class="quiet max-w-2xl">
        Somebody calls, and something does not work. Look, ask and measure, each for its minutes, and name
        what is wrong. Nothing here touches a real site, and nobody but you sees how it went.
      </p>
    </div>
    {#if next}
      <div>
        <div class="flex flex-wrap gap-2">
          <button class="btn btn-primary" onclick={() => play(next.id)}>Next case: {next.title}</button>
          <button class="btn btn-outline" onclick={() => play(drawn())}>Draw any case</button>
          <button class="btn btn-outline" onclick={() => (hands = some())}>Hands: ten small tasks</button>
        </div>
        <p class="quiet mt-1 text-sm">{next.why}</p>
      </div>
    {/if}
  </div>
  {#each practice.data.levels as level (level.level)}
    <section class="mt-6">
      <h2 class="border-b-2 border-base-content pb-1">
        {level.words.slice(0, 1).toUpperCase() + level.words.slice(1)}
      </h2>
      <ul class="grid gap-x-8 sm:grid-cols-2">
        {#each cases.filter((c) => c.level === level.level) as c (c.id)}
          <li class="border-b border-base-300">
            <button
              class="flex w-full items-center gap-3 rounded px-1 py-1.5 text-left hover:bg-base-200"
              onclick={() => play(c.id)}
            >
              <Knot
                state={c.best < 0 ? 'PENDING' : c.best === 0 ? 'FAILED' : c.best < 0.9 ? 'ACTIVE' : 'PASSED'}
              />
              <span class="flex-1"><span class="font-semibold">{c.title}</span>, {c.device}</span>
              {#if c.best >= 0}<span class="font-mono">{percent(c.best)}</span>{/if}
            </button>
          </li>
        {/each}
      </ul>
    </section>
  {/each}
  {#if practice.data.results.length}
    <section class="mt-8">
      <h2>What you played last</h2>
      <ul class="mt-1">
        {#each practice.data.results.slice(0, 10) as r (r.at)}
          <li class="flex flex-wrap gap-x-3 border-b border-base-300 py-1">
            <span class="flex-1">{r.title}</span>
            <span class="quiet">{r.solved ? 'found' : 'named something else'}</span>
            <span class="font-mono">{r.minutes.toFixed(1)} min, best {r.par.toFixed(1)}</span>
            <span class="w-8 text-right font-mono">{percent(r.score)}</span>
          </li>
        {/each}
      </ul>
    </section>
  {/if}
  <PracticeRecord practice={practice.data} />
{/if}
