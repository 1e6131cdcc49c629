<script lang="ts">
  import Printer from '@lucide/svelte/icons/printer';
  import { createQuery } from '@tanstack/svelte-query';
  import { asProblem, type Schemas } from '../../api/client';
  import { sheetQuery, wiringQuery } from '../../api/queries';
  import Knot from '../../ui/Knot.svelte';
  import Loading from '../../ui/Loading.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { at } from '../../router';
  import Cables from './Cables.svelte';

  let { siteId, mayWork }: { siteId: number; mayWork: boolean } = $props();
  const wiring = createQuery(() => wiringQuery(siteId));
  const sheet = createQuery(() => sheetQuery(siteId));
  const KNOTS = { OPEN: 'PENDING', PLANNED: 'ACTIVE', PLUGGED_IN: 'PASSED', WRONG: 'FAILED' } as const;
  type Cable = Schemas['Cable'];
  const feed = $derived.by(() => {
    const site = sheet.data?.data.site;
    if (!site?.feed) return '';
    const port = sheet.data?.data.gear.flatMap((g) => g.ports).find((p) => p.id === site.feedPortId);
    const from = site.feed === 'WALL' ? 'a wall data port' : 'a modem';
    const into = port ? ` into ${port.gear} ${port.number}` : '';
    return `Fed by ${from}${into}${site.feedNote ? ': ' + site.feedNote : ''}.`;
  });
  const first = (cables: Cable[], i: number) => i === 0 || cables[i - 1]?.place !== cables[i]?.place;
</script>

<div class="flex flex-wrap items-center gap-3">
  <h1 class="mr-auto">Wiring</h1>
  <button class="no-print btn btn-outline btn-primary btn-sm" onclick={() => print()}
    ><Printer size={16} aria-hidden="true" />Print the list</button
  >
</div>
{#if wiring.error}
  <Trouble problem={asProblem(wiring.error)} again={() => wiring.refetch()} />
{:else if !wiring.data}
  <Loading />
{:else if !wiring.data.cables.length}
  <p class="mt-4">
    No cable yet. Plan an endpoint with its place, outlet or port{mayWork
      ? ', or put gear and outlets on the'
      : '.'}
    {#if mayWork}<a class="link" href={at(siteId, 'plan', 'sheet')}>site sheet</a>.{/if}
  </p>
{:else}
  <p class="quiet mt-1">{feed} Places in the order of walking; cables end at their ports.</p>
  <div class="no-print max-[700px]:hidden">
    <Cables {siteId} cables={wiring.data.cables} gear={sheet.data?.data.gear ?? []} />
  </div>
  <h2 class="mt-6">The list, to walk along</h2>
  <table class="mt-1 w-full text-sm">
    <thead>
      <tr class="border-b-2 border-base-content text-left">
        <th class="py-1 pr-4">Place</th><th class="pr-4">Endpoint</th><th class="pr-4">Outlet</th><th
          class="pr-4">Port</th
        ><th class="max-[700px]:hidden">What is amiss</th>
      </tr>
    </thead>
    <tbody>
      {#each wiring.data.cables as cable, i (cable.endpointId)}
        <tr class="border-b border-base-300 align-top">
          <td class="py-1.5 pr-4 font-semibold"
            >{first(wiring.data.cables, i) ? cable.place || 'no place yet' : ''}</td
          >
          <td class="py-1.5 pr-4"
            ><span class="flex items-center gap-2"
              ><Knot state={KNOTS[cable.state]} size={20} /><a
                class="hover:underline"
                href={at(siteId, 'plan', cable.endpointId)}>{cable.endpoint}</a
              ></span
            ></td
          >
          <td class="py-1.5 pr-4 font-mono">{cable.outlet}</td>
          <td class="py-1.5 pr-4 font-mono">{cable.port}</td>
          <td class="py-1.5 max-[700px]:hidden">{cable.problem} <span class="quiet">{cable.mend}</span></td>
        </tr>
      {/each}
    </tbody>
  </table>
  {#if wiring.data.room.length}
    <h2 class="mt-6">Room</h2>
    <ul class="mt-1 grid gap-1 text-sm">
      {#each wiring.data.room as room (room.gear)}
        <li>
          <span class="font-semibold">{room.gear}</span>: {room.used} of {room.ports} ports in use, {room.upwards}
          upwards,
          {room.free} free. <span class="quiet">{room.advice}</span>
        </li>
      {/each}
    </ul>
  {/if}
{/if}
