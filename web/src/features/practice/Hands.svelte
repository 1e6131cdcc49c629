<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { useChange } from '../../api/change.svelte';
  import { api, asProblem, ok } from '../../api/client';
  import Knot from '../../ui/Knot.svelte';
  import Loading from '../../ui/Loading.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import HandLabel from './HandLabel.svelte';
  import HandPorts from './HandPorts.svelte';
  import HandsEnd from './HandsEnd.svelte';
  import HandSaid from './HandSaid.svelte';
  import { handsQuery, type HandDone } from './queries';

  /** Ten small tasks, one after the other, against the clock; each is judged at once. */
  let { round, leave, again }: { round: number; leave: () => void; again: () => void } = $props();
  const hands = createQuery(() => handsQuery(round));
  const judging = useChange();
  let done = $state<HandDone[]>([]);
  let typed = $state('');
  let judged = $state<HandDone | null>(null);
  let field = $state<HTMLInputElement>();
  let onwards = $state<HTMLButtonElement>();
  /** When the task came up; what somebody reads after it is judged is not counted. */
  let since = $state(0);
  const tasks = $derived(hands.data?.tasks ?? []);
  const task = $derived(tasks[done.length]);
  const free = $derived(task?.drill === 'TAKE_DOWN' || task?.drill === 'LABEL');

  $effect(() => {
    if (!task || judged) return;
    since = performance.now();
    field?.focus();
  });
  $effect(() => {
    if (judged) onwards?.focus();
  });

  const answer = (text: string) =>
    judging.run(async () => {
      if (!task || judged) return;
      const seconds = (performance.now() - since) / 1_000;
      const params = { path: { round } };
      const told = await ok(
        api.POST('/api/practice/hands/{round}/answers', {
          params,
          body: { task: done.length, answer: text },
        }),
      );
      judged = { ...told, drill: task.drill, typed: free ? text : '', seconds };
    });
  function next() {
    if (!judged) return;
    done = [...done, judged];
    judged = null;
    typed = '';
  }
  function submit(event: SubmitEvent) {
    event.preventDefault();
    if (typed.trim()) void answer(typed);
  }
</script>

{#if hands.error}
  <Trouble problem={asProblem(hands.error)} again={() => hands.refetch()} />
{:else if !hands.data}
  <Loading />
{:else if !task}
  <HandsEnd {done} {leave} {again} />
{:else}
  <div class="flex flex-wrap items-baseline justify-between gap-x-4">
    <h1>Hands</h1>
    <p><span class="font-mono text-xl">{done.length + 1}</span> of {tasks.length}</p>
  </div>
  <p class="quiet">
    The clock runs while you work, not while you read what came of it.
    <button class="link" onclick={leave}>Leave it</button>
  </p>
  <h2 class="mt-6 text-xl">{task.ask}</h2>
  {#key done.length}
    <div class="mt-4">
      {#if task.drill === 'TAKE_DOWN'}<HandSaid groups={task.said} />
      {:else if task.drill === 'LABEL'}<HandLabel lines={task.label} />
      {:else if task.drill === 'SEAL'}
        <dl class="flex flex-wrap gap-x-12 gap-y-3">
          {#each ['On the sheet', 'On the device'] as where, i (where)}
            <div>
              <dt class="quiet text-sm">{where}</dt>
              <dd class="font-mono text-3xl tracking-wider">{task.seals[i]}</dd>
            </div>
          {/each}
        </dl>
      {:else}<HandPorts ports={task.ports} choose={judged ? undefined : (n) => void answer('' + n)} />{/if}
    </div>
  {/key}
  {#if judged}
    <div class="mt-5 flex max-w-2xl items-start gap-3" role="status">
      <Knot state={judged.right ? 'PASSED' : 'FAILED'} />
      <p>
        {#if judged.typed && !judged.right}You had <span class="font-mono">{judged.typed}</span>.{/if}
        {judged.says} <span class="quiet">{judged.seconds.toFixed(1)} s</span>
      </p>
    </div>
    <button class="btn mt-4 btn-primary" bind:this={onwards} onclick={next}
      >{done.length + 1 < tasks.length ? 'Next' : 'How it went'} <kbd>Enter</kbd></button
    >
  {:else if free}
    <form class="mt-5 flex flex-wrap items-end gap-3" onsubmit={submit}>
      <label class="block">
        <span class="field-label">{task.drill === 'LABEL' ? 'The MAC' : 'The address'}</span>
        <input
          class="input w-72 font-mono text-lg"
          bind:this={field}
          bind:value={typed}
          maxlength="100"
          autocomplete="off"
          autocapitalize="off"
          spellcheck="false"
        />
      </label>
      <button class="btn btn-primary" disabled={judging.busy || !typed.trim()}>That is it</button>
    </form>
  {:else if task.drill === 'SEAL'}
    <div class="mt-5 flex flex-wrap gap-3">
      <button class="btn btn-outline btn-primary" onclick={() => void answer('SAME')}
        >The same <kbd>1</kbd></button
      >
      <button class="btn btn-outline btn-primary" onclick={() => void answer('OTHER')}
        >Not the same <kbd>2</kbd></button
      >
    </div>
  {/if}
  <Trouble problem={judging.problem} />
{/if}

<svelte:window
  onkeydown={(event) => {
    if (task?.drill !== 'SEAL' || judged || event.ctrlKey || event.altKey || event.metaKey) return;
    if (event.key === '1') void answer('SAME');
    if (event.key === '2') void answer('OTHER');
  }}
/>
