<script lang="ts">
  import { untrack } from 'svelte';
  import type { Schemas } from '../../api/client';
  import Dialog from '../../ui/Dialog.svelte';
  import { veil, withoutTail } from '../../ui/draft.svelte';
  import { kept } from '../../ui/kept.svelte';
  import Knot from '../../ui/Knot.svelte';
  import TextField from '../../ui/TextField.svelte';
  import { at } from '../../router';
  import LabelForm from '../../ui/LabelForm.svelte';
  import Gate from './Gate.svelte';
  import GateInputs from './GateInputs.svelte';
  import Openings from './Openings.svelte';
  import Wait from './Wait.svelte';
  import SheetGate from './worksheet/SheetGate.svelte';

  type Action = Schemas['StepRequest']['action'];
  let {
    step,
    book,
    endpoint,
    mayWork,
    act,
    keepOpening,
  }: {
    step: Schemas['StepView'];
    book: Schemas['RunbookView'];
    endpoint: { data: Schemas['EndpointView']; etag: string };
    mayWork: boolean;
    act: (action: Action, evidence?: Record<string, string>, reason?: string) => Promise<boolean>;
    keepOpening: (key: string, body: Schemas['OpeningRequest']) => Promise<boolean>;
  } = $props();
  const e = $derived(endpoint.data);
  const done = $derived(step.status === 'PASSED' || step.status === 'SKIPPED');
  const type = $derived(step.gate.type);
  const labelKnown = $derived(!!e.mac && !!e.serial);
  const typed = untrack(() =>
    kept<Record<string, string>>(`step-${endpoint.data.id}-${step.key}`, { ...step.evidence }),
  );
  let evidence = $state(typed.value);
  let worksheet = $state<ReturnType<typeof SheetGate>>();
  let overriding = $state(false);
  let ready = $state(false);
  let passed = $state(untrack(() => step.passed));
  let reason = $state('');
  /** A figure chooses the answer of that place, as its key beside it says. */
  function choose(event: KeyboardEvent) {
    const typing = (event.target as HTMLElement).closest(
      'input:not([type=radio]):not([type=checkbox]), select, textarea, dialog',
    );
    const option = step.gate.options[Number(event.key) - 1];
    if (option && !done && mayWork && !typing && !event.ctrlKey) evidence.seen = option.value;
  }

  $effect(() => {
    veil.drawn = type === 'FACTS' && !done && labelKnown;
    return () => (veil.drawn = false);
  });

  async function complete(event?: SubmitEvent) {
    event?.preventDefault();
    if (worksheet && !(await worksheet.save())) return;
    if (await act('COMPLETE', evidence)) typed.forget();
  }
</script>

<svelte:window onkeydown={choose} />
<h1>{step.title}</h1>
{#if type === 'TYPE_SHEET' || (type === 'READ_BACK' && step.gate.part)}<p class="quiet mt-1.5">
    {step.gate.path} Same order as there.
  </p>{/if}
{#if step.hint.length}<ul class="mt-2 grid gap-1 text-[17px]">
    {#each step.hint as hint (hint)}<li>{hint}</li>{/each}
  </ul>{/if}
{#if step.caution}<p class="caution mt-3">{step.caution}</p>{/if}
{#if step.needs && !done}<p class="mt-3 text-[17px]">
    <span class="font-semibold">For a {step.needs}.</span> It waits for that person’s name.
  </p>{/if}

{#if done}
  <p class="mt-5 flex items-center gap-3">
    <Knot state={step.status} />
    <span
      >{step.status === 'PASSED' ? 'Done' : 'Left out'} by {step.by}{step.reason
        ? ': ' + step.reason
        : ''}</span
    >
  </p>
  {#if step.unread.length}<p class="quiet mt-2">
      Not read back: {step.unread.join(', ')}. Whether {step.unread.length === 1 ? 'it stands' : 'they stand'} there
      as planned, nobody has seen.
    </p>{/if}
  {#if mayWork && type !== 'CONFIRMED'}<button class="btn mt-3 btn-ghost btn-sm" onclick={() => act('REOPEN')}
      >Undo, to do it again</button
    >{/if}
{:else if !mayWork}
  <p class="quiet mt-5">A technician does this step.</p>
{:else if type === 'CONFIRMED'}
  <a class="btn mt-5 btn-primary" href={at(e.siteId, 'confirm', e.id)}>Go to Confirm</a>
{:else if step.waiting && !step.startedAt && step.status !== 'FAILED' && !ready}
  <Wait {step} />
  <button class="btn mt-4 btn-primary" data-complete onclick={() => act('START')}
    >Start the wait <kbd>Space</kbd></button
  >
  <button class="btn mt-4 ml-2 btn-ghost btn-sm" onclick={() => (ready = true)}>It is ready already</button>
{:else}
  {#if step.waiting}<Wait {step} restarted={() => act('RESTARTED')} />{/if}
  {#if type === 'OPENINGS'}<Openings openings={book.openings} {mayWork} keep={keepOpening} />{/if}
  <form onsubmit={complete} class="mt-4">
    {#if type === 'WORKSHEET'}<SheetGate bind:this={worksheet} sheet={step.gate.sheet} endpoint={e} />
    {:else}<Gate {step} {book} {endpoint} bind:evidence />{/if}
    {#if type === 'FACTS'}
      <p class="mb-2 text-[17px] font-semibold">
        {labelKnown ? 'On record. Is this the very device in your hand?' : step.gate.ask}
      </p>
      {#if labelKnown}<p class="font-mono text-lg" translate="no">
          S/N {withoutTail(e.serial)}<br />MAC {withoutTail(e.mac ?? '')}
        </p>{/if}
    {:else if step.gate.inputs.length && !step.gate.options.length && step.gate.ask}
      <p class="text-[17px] font-semibold">{step.gate.ask}</p>
    {/if}
    <GateInputs inputs={step.gate.inputs} bind:evidence findings={step.findings} />
    {#if step.findings.length && type !== 'WORKSHEET'}
      <div class="my-3 border-l-4 border-error pl-3" role="alert">
        {#each step.findings as f (f.field + f.message)}<p class="font-semibold">{f.message}</p>{/each}
        {#each new Set(step.findings.map((f) => f.remedy)) as remedy (remedy)}<p>{remedy}</p>{/each}
      </div>
    {/if}
    {#if step.waysOut.length}
      <section class="my-3" aria-label="Ways out">
        <h2 class="text-base">It failed three times. Another way:</h2>
        <ol class="list-decimal pl-5 text-[17px]">
          {#each step.waysOut as way (way)}<li>{way}</li>{/each}
        </ol>
      </section>
    {/if}
    {#if type !== 'FACTS' || labelKnown}
      <div class="mt-4 flex flex-wrap items-center gap-3">
        <button class="btn btn-primary" data-complete
          >{type === 'TYPE_SHEET' ? 'Entered and saved' : 'Step done'} <kbd>Space</kbd></button
        >
        <button type="button" class="btn btn-ghost btn-sm" onclick={() => (overriding = true)}
          >Leave this step out</button
        >
      </div>
      {#if step.recovery}<details class="mt-3" bind:open={passed}>
          <summary class="cursor-pointer text-sm">Its moment has passed</summary>
          <p class="caution mt-2">{step.recovery}</p>
        </details>{/if}
    {/if}
  </form>
  {#if type === 'FACTS'}
    {#if labelKnown}
      <details class="mt-4">
        <summary class="cursor-pointer text-sm">The label was read wrongly</summary>
        <LabelForm {endpoint} />
      </details>
    {:else}<LabelForm {endpoint} />{/if}
  {/if}
  {#if type === 'TYPE_SHEET' && !step.gate.part}
    <p class="caution mt-4">
      {e.oneSlipFrom.length
        ? 'One slip away from ' + e.oneSlipFrom.join(', ') + ': read the last group aloud. '
        : ''}{book.menuCaution}
    </p>
  {/if}
{/if}

<Dialog bind:open={overriding} title="Leave out “{step.title}”?">
  <p>The step counts as left out, and the hand-over shows your reason.</p>
  <div class="mt-3"><TextField label="Why" bind:value={reason} required /></div>
  <button
    class="btn mt-4 btn-primary"
    onclick={() => {
      overriding = false;
      void act('OVERRIDE', {}, reason);
    }}>Leave it out</button
  >
</Dialog>
