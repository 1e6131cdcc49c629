<script lang="ts">
  import type { Problem, Schemas } from '../../api/client';
  import { readAddress } from '../../api/readers';
  import { at, go } from '../../router';
  import Figures from '../../ui/Figures.svelte';
  import ReadField from '../../ui/ReadField.svelte';
  import TextField from '../../ui/TextField.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { METHODS } from './methods';
  import type { TypedEndpoint } from './typed';

  /** Where it goes and why, another address if one is wanted, and what must reach it. */
  let {
    siteId,
    f = $bindable(),
    segment,
    proposal,
    problem,
    busy,
  }: {
    siteId: number;
    f: TypedEndpoint;
    segment: Schemas['SegmentView'];
    proposal: Schemas['ProposalView'] | undefined;
    problem: Problem | null;
    busy: boolean;
  } = $props();
  const mine = $derived(!!proposal && f.address !== (proposal.address ?? ''));
  let choosing = $state(false);
</script>

<section class="grid content-start gap-3" aria-label="Its address">
  {#if proposal?.refused}
    <h2>No address can be had</h2>
    <p>{proposal.refused} {proposal.leastChange}</p>
  {:else if proposal?.address}
    <h2>It goes to <Figures value={proposal.address} /></h2>
    <ul class="grid gap-1 text-sm" data-reasons>
      {#each proposal.reasons as reason (reason)}<li>{reason}</li>{/each}
    </ul>
    {#if choosing}
      <ReadField
        label="Address"
        bind:value={f.address}
        read={readAddress('ADDRESS', { segmentId: segment.id })}
        error={problem?.field('address')}
        autofocus
      />
      <p class="flex flex-wrap items-center gap-2 text-sm">
        <span class="quiet">Safest others:</span>
        {#each proposal.alternatives as other (other.address)}
          <button
            type="button"
            class="btn btn-outline font-mono btn-primary btn-sm"
            onclick={() => (f.address = other.address)}>{other.address}</button
          >
        {/each}
      </p>
      {#if mine}<TextField
          label="Why another one"
          bind:value={f.reason}
          error={problem?.field('reason')}
          hint="Kept with the endpoint; needed for an address in the pool."
        />{/if}
    {:else if problem?.field('address')}<p class="text-sm text-error">{problem.field('address')}</p>{/if}
  {/if}
  <Trouble {problem} />
  <div class="flex flex-wrap gap-3">
    <button class="btn btn-primary" disabled={busy || !proposal}>Plan it here <kbd>Enter</kbd></button>
    {#if !choosing}<button type="button" class="btn btn-outline btn-primary" onclick={() => (choosing = true)}
        >Choose another</button
      >{/if}
    <button type="button" class="btn btn-ghost" onclick={() => go(at(siteId, 'plan'))}>Leave it</button>
  </div>
  <div class="mt-1 grid gap-x-4 sm:grid-cols-2">
    <div class="mb-2 sm:col-span-2">
      <label class="field-label" for="method">Who keeps its address</label>
      <select id="method" class="select w-full max-w-xs" bind:value={f.method}>
        {#each Object.entries(METHODS) as [value, words] (value)}<option {value}>{words}</option>{/each}
      </select>
    </div>
    <TextField
      label="Partner"
      bind:value={f.partner}
      error={problem?.field('partnerName')}
      hint="What must reach it"
    />
    {#if f.partner}<ReadField
        label="Its address"
        bind:value={f.partnerAddress}
        read={readAddress('RESOLVER', { segmentId: segment.id })}
        error={problem?.field('partnerAddress')}
      />{/if}
  </div>
</section>
