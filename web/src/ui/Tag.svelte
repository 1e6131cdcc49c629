<script lang="ts">
  import type { Schemas } from '../api/client';
  import { veil, withoutTail } from './draft.svelte';
  import Figures from './Figures.svelte';
  import Knot from './Knot.svelte';

  let { endpoint }: { endpoint: Schemas['EndpointView'] } = $props();
  const shown = $derived((text: string) => (veil.drawn ? withoutTail(text) : text));
  const rows = $derived(
    (
      [
        ['MAC', endpoint.mac ? shown(endpoint.mac) : 'not read yet', true],
        ['Serial', endpoint.serial ? shown(endpoint.serial) : 'not read yet', true],
        ['Listens on', endpoint.servicePort?.toString() ?? '', true],
        ['Partner', endpoint.partner, false],
        ['Its port', endpoint.partnerPort?.toString() ?? '', true],
        [
          'Place',
          [endpoint.place, endpoint.outlet && 'outlet ' + endpoint.outlet].filter(Boolean).join(', '),
          false,
        ],
        ['Port', endpoint.switchPort, false],
        ['Host', endpoint.hostName, true],
        ['Tag', endpoint.tagCode, true],
      ] as [string, string, boolean][]
    ).filter(([, value]) => value),
  );
</script>

<article class="tag relative bg-manila px-5 pt-10 pb-4" aria-label="Tag of {endpoint.name}">
  <span
    class="absolute top-2.5 left-1/2 size-5 -translate-x-1/2 rounded-full border-[3px] border-manila-edge bg-base-100"
  ></span>
  <h2 class="leading-tight">{endpoint.name}</h2>
  <p class="text-sm text-manila-ink">{endpoint.kindName}</p>
  {#if endpoint.address}
    <p class="mt-2 text-[2.05rem] leading-none font-semibold tracking-tight">
      <Figures value={endpoint.address} />
    </p>
    <p class="mt-1.5 text-sm text-manila-ink">mask {endpoint.mask}, {endpoint.methodWords}</p>
  {:else}
    <p class="mt-3 text-xl font-semibold">No address yet</p>
  {/if}
  <dl
    class="mt-3 grid grid-cols-[5rem_1fr] gap-y-1 border-t-[1.5px] border-dashed border-manila-edge pt-2.5 text-sm"
  >
    {#each rows as [label, value, figures] (label)}
      <dt class="text-manila-ink">{label}</dt>
      <dd class={figures ? 'font-mono' : ''} translate={figures ? 'no' : undefined}>{value}</dd>
    {/each}
  </dl>
</article>
<p class="mt-3 flex items-center gap-2 text-sm" data-standing>
  <Knot state={endpoint.status} size={26} /><span>{endpoint.standing}</span>
</p>

<style>
  .tag {
    clip-path: polygon(30px 0, calc(100% - 30px) 0, 100% 30px, 100% 100%, 0 100%, 0 30px);
  }
</style>
