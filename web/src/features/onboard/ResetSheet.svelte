<script lang="ts">
  import type { Schemas } from '../../api/client';
  import Dialog from '../../ui/Dialog.svelte';
  import TextField from '../../ui/TextField.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import type { Problem } from '../../api/client';

  /** What a reset keeps and loses, before it is said to have happened. */
  let {
    rule,
    name,
    reset,
  }: {
    rule: Schemas['ResetView'];
    name: string;
    reset: (why: string, backup: string) => Promise<Problem | null>;
  } = $props();
  let open = $state(false);
  let why = $state('');
  let backup = $state('');
  let problem = $state<Problem | null>(null);

  async function send(event: SubmitEvent) {
    event.preventDefault();
    problem = await reset(why, backup);
    if (!problem) open = false;
  }
</script>

<button
  type="button"
  class="mt-4 block text-left text-sm font-semibold hover:underline"
  onclick={() => (open = true)}>It was reset, or has to be</button
>
<Dialog bind:open title="A reset of {name}">
  <p class="text-[17px]">{rule.how}{rule.hold ? ` Hold it ${rule.hold}.` : ''}</p>
  {#if rule.longer}<p class="caution mt-2">Held far longer it {rule.longer}.</p>{/if}
  <dl class="mt-3 grid grid-cols-[6rem_1fr] gap-y-1">
    <dt class="font-semibold">Stays</dt>
    <dd>{rule.keeps.join(', ') || 'nothing'}</dd>
    <dt class="font-semibold">Is gone</dt>
    <dd>{rule.loses.join(', ') || 'nothing'}</dd>
    <dt class="font-semibold">Again</dt>
    <dd>{rule.redo.join(', ')}</dd>
  </dl>
  <form onsubmit={send} class="mt-4 grid gap-3">
    <TextField label="Why" bind:value={why} error={problem?.field('why')} required />
    {#if rule.data}
      <TextField
        label="Which backup covers what is lost"
        bind:value={backup}
        error={problem?.field('backup')}
        hint="Data of the client go with it. Without a backup, stop here."
        required
      />
    {/if}
    {#if problem && !problem.field('why') && !problem.field('backup')}<Trouble {problem} />{/if}
    <button class="btn w-fit btn-primary">It was reset: open these steps again</button>
  </form>
</Dialog>
