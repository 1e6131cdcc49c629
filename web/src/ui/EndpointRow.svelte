<script lang="ts">
  import type { Schemas } from '../api/client';
  import Knot from './Knot.svelte';
  import { stateWord } from './states';

  /** One endpoint on one line of a list. */
  let {
    e,
    href,
    kind,
    chosen,
    waits,
    facts,
  }: {
    e: Schemas['EndpointLine'];
    href: string;
    kind: string;
    chosen: boolean;
    waits: boolean;
    facts: boolean;
  } = $props();
</script>

<tr
  class="border-b border-base-300 hover:bg-base-200 max-md:grid max-md:grid-cols-[auto_1fr] max-md:py-1 {chosen
    ? 'bg-base-200'
    : ''} {waits ? '' : 'text-secondary'}"
  aria-current={chosen || undefined}
>
  <td class="py-1 pr-2"
    ><span class="flex items-center gap-2 text-sm"
      ><Knot state={e.status} size={20} /><span class="max-md:sr-only">{stateWord(e)}</span></span
    ></td
  >
  <td class="truncate py-1 pr-2"
    ><a class="font-semibold no-underline hover:underline" {href} title={e.name}>{e.name}</a><span
      class="quiet ml-2 text-sm md:hidden">{stateWord(e)}</span
    ></td
  >
  {#if !facts}
    <td class="truncate py-1 pr-2 text-sm max-md:hidden">{kind}</td>
    <td class="truncate py-1 pr-2 text-sm max-md:hidden" title={e.place}>{e.place}</td>
  {/if}
  <td class="py-1 font-mono text-sm max-md:col-start-2" translate="no">{e.address ?? 'no address'}</td>
  {#if facts}
    <td class="py-1 font-mono text-sm max-md:col-start-2 {e.mac ? '' : 'text-error'}" translate="no"
      >{e.mac ?? 'MAC not read yet'}</td
    >
    <td
      class="truncate py-1 font-mono text-sm max-md:col-start-2 {e.serial ? '' : 'text-error'}"
      translate="no">{e.serial || 'no serial yet'}</td
    >
  {/if}
</tr>
