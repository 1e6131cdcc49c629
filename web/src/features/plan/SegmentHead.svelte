<script lang="ts">
  import type { Schemas } from '../../api/client';

  let {
    segments,
    segment,
    pick,
  }: {
    segments: Schemas['SegmentView'][];
    segment: Schemas['SegmentView'];
    pick: (id: number) => void;
  } = $props();
</script>

<div class="flex flex-wrap items-baseline gap-x-4 gap-y-1">
  {#if segments.length > 1}
    <h1 class="sr-only">{segment.name}</h1>
    <select
      class="select w-auto text-lg font-bold"
      aria-label="Segment"
      value={segment.id}
      onchange={(e) => pick(Number(e.currentTarget.value))}
    >
      {#each segments as s (s.id)}<option value={s.id}>{s.name}</option>{/each}
    </select>
  {:else}<h1>{segment.name}</h1>{/if}
  <span class="font-mono text-lg">{segment.prefix}</span>
  <span class="quiet"
    >{segment.gatewayHost === null ? 'no gateway' : 'gateway ' + segment.gatewayHost}, {segment.living} on record,
    {segment.fixable}
    can be fixed</span
  >
</div>
