<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { asProblem } from '../../api/client';
  import Loading from '../../ui/Loading.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import FirmwareFault from './FirmwareFault.svelte';
  import FirmwareFaultForm from './FirmwareFaultForm.svelte';
  import FirmwareUnit from './FirmwareUnit.svelte';
  import { firmwareQuery } from './queries';

  /** Which firmware each unit has, as it was read last, and who still has one of which a fault is known. */
  let { siteId, mayWork }: { siteId: number; mayWork: boolean } = $props();
  let kind = $state('');
  const found = createQuery(() => firmwareQuery(siteId, kind));
  const faults = $derived(found.data?.faults ?? []);
  const here = $derived(new Set(faults.flatMap((f) => f.here.map((c) => c.unit.endpointId))).size);
</script>

<h1>Firmware</h1>
{#if found.error}
  <Trouble problem={asProblem(found.error)} again={() => found.refetch()} />
{:else if !found.data}
  <Loading />
{:else}
  <p class="mt-1 text-lg" role="status">
    {#if !faults.length}No fault of any firmware is known.{:else if !here}No unit here has a firmware of which
      a fault is known.{:else}{here === 1 ? 'One unit here has' : `${here} units here have`} a known fault, or may
      have it.{/if}
  </p>
  <ul class="mt-3 max-w-4xl" aria-label="Known faults">
    {#each faults as fault (fault.id)}<FirmwareFault {siteId} {fault} {mayWork} />{/each}
  </ul>
  {#if mayWork}<FirmwareFaultForm {siteId} kind={found.data.kind} />{/if}
  {#if found.data.kinds.length}
    <div class="mt-8 flex flex-wrap items-end justify-between gap-3">
      <h2 class="text-lg font-bold" id="units">What was read</h2>
      <label class="flex items-center gap-2"
        >Kind
        <select
          class="select select-sm"
          value={found.data.kind}
          onchange={(e) => (kind = e.currentTarget.value)}
        >
          {#each found.data.kinds as k (k.kind)}<option value={k.kind}>{k.name} ({k.count})</option>{/each}
        </select></label
      >
    </div>
    <ul class="mt-2" aria-labelledby="units">
      {#each found.data.units as unit (unit.endpointId)}<FirmwareUnit {siteId} {unit} {mayWork} />{/each}
    </ul>
  {/if}
{/if}
