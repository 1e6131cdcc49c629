<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import type { Problem, Schemas } from '../../api/client';
  import { kindsQuery } from '../../api/queries';
  import { readMac, readSerial } from '../../api/readers';
  import ReadField from '../../ui/ReadField.svelte';
  import TextField from '../../ui/TextField.svelte';
  import type { TypedEndpoint } from './typed';

  /** Kind, number, label, names and where it stands. */
  let {
    siteId,
    f = $bindable(),
    kind = $bindable(),
    number = $bindable(),
    seriesId = $bindable(),
    before,
    series,
    sheet,
    proposal,
    problem,
    read,
    anew,
  }: {
    siteId: number;
    f: TypedEndpoint;
    kind: string;
    number: number | undefined;
    seriesId: number | undefined;
    before: boolean;
    series: Schemas['SeriesRow'][];
    sheet: Schemas['SheetView'] | undefined;
    proposal: Schemas['ProposalView'] | undefined;
    problem: Problem | null;
    read: (mac: string | null) => void;
    anew: () => void;
  } = $props();
  const kinds = createQuery(() => kindsQuery);
</script>

<section class="grid content-start gap-3" aria-label="What it is">
  <h2>New endpoint</h2>
  {#if before}<p class="caution">
      What you typed before is still here.
      <button type="button" class="link" onclick={anew}>Begin anew</button>
    </p>{/if}
  <div class="grid grid-cols-[1fr_6rem] gap-4">
    <div>
      <label class="field-label" for="kind">Kind</label>
      <select
        id="kind"
        class="select w-full"
        bind:value={kind}
        onchange={() => ((number = undefined), (seriesId = undefined))}
      >
        {#each kinds.data ?? [] as k (k.id)}<option value={k.id}>{k.name}</option>{/each}
      </select>
    </div>
    {#if proposal?.number != null}
      <div>
        <label class="field-label" for="number">Number</label>
        <input
          id="number"
          type="number"
          min="1"
          max="9999"
          class="input w-full font-mono"
          value={number ?? proposal?.number ?? ''}
          oninput={(e) => (number = e.currentTarget.valueAsNumber || undefined)}
        />
      </div>
    {/if}
  </div>
  <div class="grid gap-x-4 sm:grid-cols-[1.25fr_1fr]">
    <ReadField
      label="MAC"
      bind:value={f.mac}
      read={readMac(siteId)}
      error={problem?.field('mac')}
      hint="From the label; may wait"
      onreading={(reading) => read(reading?.value ?? null)}
    />
    <ReadField
      label="Serial"
      bind:value={f.serial}
      read={readSerial(siteId, kind)}
      error={problem?.field('serial')}
      hint="From the label; may wait"
    />
  </div>
  <div class="grid gap-x-4 sm:grid-cols-[1.25fr_1fr]">
    <TextField label="Name" bind:value={f.name} error={problem?.field('name')} required />
    <TextField label="Host name" bind:value={f.hostName} error={problem?.field('hostName')} mono />
  </div>
  <div class="grid grid-cols-3 gap-4">
    <TextField
      label="Place"
      bind:value={f.place}
      error={problem?.field('place')}
      list={sheet?.places.map((p) => p.name)}
    />
    <TextField
      label="Outlet"
      bind:value={f.outlet}
      error={problem?.field('outlet')}
      list={sheet?.outlets.map((o) => o.name)}
    />
    <TextField
      label="Switch port"
      bind:value={f.port}
      error={problem?.field('switchPort')}
      list={sheet?.gear.flatMap((g) => g.ports.map((p) => g.name + ' ' + p.number))}
    />
  </div>
  {#if series.length > 1 || seriesId !== undefined}
    <div class="max-w-xs">
      <label class="field-label" for="series">Counted in</label>
      <select
        id="series"
        class="select w-full"
        value={proposal?.seriesId ?? 0}
        onchange={(e) => ((number = undefined), (seriesId = Number(e.currentTarget.value)))}
      >
        <option value={0}>no series</option>
        {#each series as s (s.id)}<option value={s.id}>{s.name}</option>{/each}
      </select>
    </div>
  {/if}
</section>
