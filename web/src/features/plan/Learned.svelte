<script lang="ts">
  import { api, ok, type Schemas } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import Knot from '../../ui/Knot.svelte';
  import ReadField from '../../ui/ReadField.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { readAddress } from '../../api/readers';

  let { endpointId }: { endpointId: number } = $props();
  const f = $state({ address: '', mask: '', gateway: '', first: '', second: '' });
  let lines = $state<Schemas['Line'][] | null>(null);
  const change = useChange();
  const problem = $derived(change.problem);
  const KNOTS = { KEEP: 'PASSED', CHANGE: 'ACTIVE', ALARM: 'FAILED' } as const;

  async function compare(e: SubmitEvent) {
    e.preventDefault();
    lines = null;
    await change.run(async () => {
      lines = await ok(
        api.POST('/api/endpoints/{id}/learned', {
          params: { path: { id: endpointId } },
          body: {
            address: f.address,
            mask: f.mask,
            gateway: f.gateway,
            resolvers: [f.first, f.second].filter(Boolean),
          },
        }),
      );
    });
  }
</script>

<p class="quiet">
  Switch automatic on at the device, key in what it got, and see which field to change. Switching back later
  wipes what was typed.
</p>
<form onsubmit={compare} class="mt-3 grid gap-x-4 sm:grid-cols-2">
  <ReadField
    label="Address"
    bind:value={f.address}
    read={readAddress('RESOLVER')}
    error={problem?.field('address')}
  />
  <ReadField label="Mask" bind:value={f.mask} read={readAddress('MASK')} error={problem?.field('mask')} />
  <ReadField
    label="Gateway"
    bind:value={f.gateway}
    read={readAddress('RESOLVER')}
    error={problem?.field('gateway')}
  />
  <ReadField
    label="First resolver"
    bind:value={f.first}
    read={readAddress('RESOLVER')}
    error={problem?.field('resolvers')}
  />
  <ReadField label="Second resolver" bind:value={f.second} read={readAddress('RESOLVER')} />
  <div class="self-center"><button class="btn btn-primary">Compare with the plan</button></div>
</form>
<Trouble problem={problem?.errors.length ? null : problem} />
{#if lines}
  <ul role="status" class="mt-3">
    {#each lines as line (line.field)}
      <li class="flex items-start gap-3 border-b border-base-300 py-2">
        <Knot state={KNOTS[line.act]} size={24} />
        <span class="w-24 shrink-0 font-semibold">{line.field}</span>
        <span class="min-w-0"
          ><span class="font-mono" translate="no"
            >{line.learned}{line.act === 'KEEP' ? '' : ' → ' + line.planned}</span
          >
          <span class="quiet block text-sm">{line.reason}</span></span
        >
      </li>
    {/each}
  </ul>
{/if}
