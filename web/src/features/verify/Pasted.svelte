<script lang="ts">
  import { api, ok, type Schemas } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import Knot from '../../ui/Knot.svelte';

  /** What another tool or the device itself said: read, compared, and weighed when something fails. */
  let { endpointId, weighed }: { endpointId: number; weighed: () => void } = $props();
  let text = $state('');
  let read = $state<Schemas['PastedView'] | null>(null);
  const change = useChange();
  const problem = $derived(change.problem);

  async function send(event: SubmitEvent) {
    event.preventDefault();
    await change.run(async () => {
      read = await ok(
        api.POST('/api/endpoints/{id}/pasted', { params: { path: { id: endpointId } }, body: { text } }),
      );
      if (read.weighed) weighed();
    });
  }
</script>

<details class="mt-6">
  <summary class="cursor-pointer font-semibold">Paste what a tool or the device says</summary>
  <form onsubmit={send} class="mt-2">
    <label class="field-label" for="pasted"
      >An echo, a neighbour table, a lease list, the MAC table of a switch, or what the mail server answers</label
    >
    <textarea id="pasted" class="textarea w-full font-mono text-sm" rows="5" bind:value={text}></textarea>
    <button class="btn mt-2 btn-outline btn-primary btn-sm">Read it</button>
  </form>
  {#if problem}<p class="mt-1 text-error">{problem.field('text') ?? problem.message}</p>{/if}
  {#if read}
    <div role="status" class="mt-2">
      <p class={read.sure ? 'quiet text-sm' : 'caution'}>
        {read.sure
          ? `This is ${read.form}.`
          : `This may be ${read.form}, but not for certain: it is shown, and not weighed.`}
      </p>
      <ul>
        {#each read.findings as f (f.words)}
          <li class="flex items-start gap-2 py-0.5">
            <Knot state={f.fits ? 'PASSED' : 'FAILED'} />{f.words}
          </li>
        {/each}
      </ul>
      {#if read.weighed}<p class="quiet text-sm">It is weighed with the rest.</p>{/if}
    </div>
  {/if}
</details>
