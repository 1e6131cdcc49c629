<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { useChange } from '../../api/change.svelte';
  import { api, asProblem, freshKey, ok, type Schemas } from '../../api/client';
  import Loading from '../../ui/Loading.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import NameIt from './NameIt.svelte';
  import { caseQuery } from './queries';
  import ReviewSheet from './ReviewSheet.svelte';

  /** One case: a call, the way from here to the service, and whatever can be looked at along it. */
  let { id, play }: { id: string; play: (id: string | null) => void } = $props();
  const practiceCase = createQuery(() => caseQuery(id));
  const key = freshKey();
  let shown = $state<Schemas['ShownView'][]>([]);
  let minutes = $state(0);
  let place = $state(0);
  let review = $state<Schemas['ReviewView'] | null>(null);
  let heading = $state<HTMLElement>();
  const c = $derived(practiceCase.data);
  const stretch = $derived(c?.way[place]);
  const said = (question: string) => shown.find((s) => s.question === question)?.said;
  const words = (question: string) =>
    c?.way.flatMap((w) => w.looks).find((l) => l.question === question)?.words ?? question;

  const path = $derived({ params: { path: { caseId: id } } });
  const looking = useChange();
  const naming = useChange(() => [['practice']]);
  const look = (question: Schemas['LookView']['question']) =>
    looking.run(async () => {
      const body = { asked: [...shown.map((s) => s.question), question] };
      const told = await ok(api.POST('/api/practice/{caseId}/looks', { ...path, body }));
      shown = told.looks;
      minutes = told.minutes;
    });
  const name = (named: Schemas['CauseView']['fault'][]) =>
    naming.run(async () => {
      const params = { ...path.params, header: key };
      const body = { asked: shown.map((s) => s.question), named };
      review = await ok(api.POST('/api/practice/{caseId}/reviews', { params, body }));
      heading?.focus();
    }, key);

  /** A figure chooses a place; the looks there are buttons. */
  function onkeydown(event: KeyboardEvent) {
    const field = event.target instanceof HTMLElement && event.target.closest('input, select, textarea');
    const at = Number(event.key) - 1;
    if (!field && !review && !event.ctrlKey && !event.altKey && !event.metaKey && c?.way[at]?.looks.length)
      place = at;
  }
</script>

<svelte:window {onkeydown} />
{#if practiceCase.error && !c}
  <Trouble problem={asProblem(practiceCase.error)} again={() => practiceCase.refetch()} />
{:else if !c}
  <Loading />
{:else}
  <div class="flex flex-wrap items-baseline justify-between gap-x-4">
    <h1 bind:this={heading} tabindex="-1">{c.title}</h1>
    <p><span class="font-mono text-xl">{minutes.toFixed(1)}</span> min {review ? 'in all' : 'so far'}</p>
  </div>
  <p class="quiet">
    A {c.device}; {c.levelWords}. <button class="link" onclick={() => play(null)}>All cases</button>
  </p>
  <p class="mt-3 max-w-3xl text-[17px]">{c.call}</p>
  {#if c.lately.length}<p class="mt-1">On record in the last days: {c.lately.join('; ')}.</p>{/if}
  {#if review}
    <ReviewSheet {review} again={() => play(id)} onwards={play} />
  {:else}
    <div class="mt-5 grid gap-8 min-[900px]:grid-cols-[minmax(0,1fr)_340px]">
      <div>
        <div
          class="flex flex-wrap gap-x-1 border-b-[3px] border-base-content"
          role="group"
          aria-label="Where to look"
        >
          {#each c.way as w, i (w.title)}
            {#if w.looks.length}<button
                class="-mb-[3px] border-b-[6px] px-2 py-1 {i === place
                  ? 'border-primary font-semibold'
                  : 'border-transparent'}"
                aria-pressed={i === place}
                onclick={() => (place = i)}
                >{#if i < 9}<kbd class="max-[900px]:hidden">{i + 1}</kbd>{/if}
                {w.title}</button
              >{/if}
          {/each}
        </div>
        <ul>
          {#each stretch?.looks ?? [] as l (l.question)}
            <li class="flex flex-wrap items-center gap-x-3 border-b border-base-300 py-1.5">
              <span class="min-w-0 flex-1 basis-56">{l.words}</span>
              {#if said(l.question)}<span class="font-semibold">{said(l.question)}.</span>
              {:else}<button class="btn btn-outline btn-sm" onclick={() => void look(l.question)}
                  >{l.eyes ? 'Look,' : 'Measure,'}&nbsp;<span class="font-mono">{l.minutes} min</span></button
                >{/if}
            </li>
          {/each}
        </ul>
        <Trouble problem={looking.problem ?? naming.problem} />
      </div>
      <div>
        <NameIt way={c.way} busy={naming.busy} {name} />
        <h2 class="mt-6">What you know</h2>
        {#if shown.length}
          <ol aria-label="What you know" aria-live="polite">
            {#each shown as s (s.question)}
              <li class="border-b border-base-300 py-1">
                <span class="quiet">{words(s.question)}</span><br />{s.said}.
              </li>
            {/each}
          </ol>
        {:else}<p class="quiet">Nothing but the call yet.</p>{/if}
      </div>
    </div>
  {/if}
{/if}
