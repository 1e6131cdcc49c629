<script lang="ts">
  import { api, ok, type Schemas } from '../api/client';
  import { useChange } from '../api/change.svelte';
  import Trouble from './Trouble.svelte';

  /** Takes a MAC from what a switch or a machine shows of who is there. */
  let { endpointId, choose }: { endpointId: number; choose: (mac: string) => void } = $props();
  let text = $state('');
  let found = $state<Schemas['Candidate'][]>([]);
  const change = useChange();
  const problem = $derived(change.problem);

  async function look(event: SubmitEvent) {
    event.preventDefault();
    found = [];
    await change.run(async () => {
      found = await ok(
        api.POST('/api/endpoints/{id}/neighbour-table', {
          params: { path: { id: endpointId } },
          body: { text },
        }),
      );
    });
  }
</script>

<form onsubmit={look}>
  <label class="field-label" for="neighbour-text">Paste what the switch or the machine prints</label>
  <textarea
    id="neighbour-text"
    class="textarea h-32 w-full font-mono text-[13px]"
    spellcheck="false"
    bind:value={text}
  ></textarea>
  <button class="btn mt-2 btn-primary" disabled={!text.trim()}>Look for it</button>
</form>
<Trouble {problem} />
<ul class="mt-3">
  {#each found as c (c.mac + c.address)}
    <li class="flex flex-wrap items-center gap-x-3 border-b border-base-300 py-1.5">
      <span class="font-mono {c.likely ? 'font-semibold' : ''}" translate="no">{c.mac}</span>
      <span class="font-mono text-sm" translate="no">{c.address ?? ''}</span>
      <span class="quiet min-w-0 flex-1 text-sm">{c.said}</span>
      <button
        class="btn btn-outline btn-primary btn-sm"
        onclick={() => choose(c.mac)}
        aria-label="Take {c.mac}">Take it</button
      >
    </li>
  {/each}
</ul>
