<script lang="ts">
  import type { Schemas } from '../../api/client';
  import Knot from '../../ui/Knot.svelte';
  import { dayTime } from '../../ui/time';
  import { at, pastAt } from '../../router';
  import GearRead from './GearRead.svelte';
  import { linkWords } from './words';

  /** One piece of gear: what it told, port by port. */
  let { siteId, gear, mayWork }: { siteId: number; gear: Schemas['GearToldView']; mayWork: boolean } =
    $props();
  const read = $derived(gear.reads[0]);
  const ports = $derived(read?.ports ?? []);
  /** Dark ports at which nobody is on record say nothing. */
  const telling = $derived(
    ports.filter((p) => p.remarks.length || p.hung.length || (p.told && p.link !== 'DOWN')),
  );
  const quiet = $derived(ports.length - telling.length);
  let reading = $state(false);
</script>

<section class="mt-6 max-w-5xl border-t border-base-300 pt-4" aria-labelledby="gear-{gear.id}">
  <div class="flex flex-wrap items-baseline gap-x-4 gap-y-1">
    <h2 id="gear-{gear.id}" class="text-lg font-bold">{gear.name}</h2>
    {#if read}
      <p role="status">
        {read.wrong === 0
          ? 'Nothing is wrong with its ports'
          : read.wrong === 1
            ? 'One port needs a hand'
            : `${read.wrong} ports need a hand`}
      </p>
    {:else}
      <p class="quiet">not read yet</p>
    {/if}
    {#if mayWork}
      <button
        class="btn ml-auto btn-outline btn-primary btn-sm"
        aria-expanded={reading}
        onclick={() => (reading = !reading)}>{read ? 'Read it again' : 'Read it'}</button
      >
    {/if}
  </div>
  {#if read}
    <p class="quiet text-sm">
      Read {dayTime(read.at)} by {read.by} at {gear.address}{read.ownName
        ? `; it calls itself ${read.ownName}`
        : ''}.
    </p>
  {/if}
  {#if reading}
    <GearRead {siteId} {gear} done={() => (reading = false)} />
  {/if}
  {#each read?.remarks ?? [] as r (r)}<p class="mt-2">{r}</p>{/each}
  {#if telling.length}
    <table class="mt-3 w-full text-left" aria-label="Ports of {gear.name}">
      <thead class="quiet text-sm max-sm:hidden">
        <tr
          ><th class="w-8"></th><th class="w-40 py-1 pr-4">Port</th><th class="w-40 pr-4">Link</th><th
            >Who hangs there</th
          ></tr
        >
      </thead>
      <tbody>
        {#each telling as p (p.label)}
          <tr
            class="border-b border-base-300 align-top max-sm:grid max-sm:grid-cols-[2rem_auto_1fr] max-sm:items-baseline max-sm:py-2"
            data-port={p.label}
          >
            <td class="py-1.5 max-sm:self-start max-sm:py-0">
              {#if p.right || p.remarks.some((r) => r.wrong)}
                <Knot state={p.remarks.some((r) => r.wrong) ? 'FAILED' : 'PASSED'} size={22} />
              {/if}
            </td>
            <td class="py-1.5 pr-4 font-semibold max-sm:py-0"
              >{#if p.hung.length && !p.through}<a class="link" href={pastAt(siteId, { of: p.label })}
                  >{p.label}</a
                >{:else}{p.label}{/if}</td
            >
            <td class="py-1.5 pr-4 max-sm:py-0">{linkWords(p)}</td>
            <td class="py-1.5 max-sm:col-span-2 max-sm:col-start-2 max-sm:py-0">
              {#if p.through}
                <p>
                  Leads on{p.other ? ` to ${p.other}` : ''}{p.hung.length
                    ? `: ${p.hung.length} ${p.hung.length === 1 ? 'is' : 'are'} behind it`
                    : ''}.
                </p>
              {:else if p.hung.length}
                <p>
                  {#each p.hung as h, i (h.mac)}{i ? ', ' : ''}{#if h.endpointId}<a
                        class="link"
                        href={at(siteId, 'plan', h.endpointId)}>{h.name}</a
                      >{:else}<a class="link font-mono" href={pastAt(siteId, { of: h.mac })}>{h.mac}</a>, not
                      on record{/if}{/each}
                </p>
              {:else if p.other}<p>{p.other}</p>{/if}
              {#each p.remarks as r (r.says)}
                <p>{r.says}</p>
                {#if r.act}<p class="font-medium">{r.act}</p>{/if}
              {/each}
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
    {#if quiet}
      <p class="quiet mt-2 text-sm">
        {quiet === 1 ? 'One more port is dark' : `${quiet} more ports are dark`}, or nothing was told of {quiet ===
        1
          ? 'it'
          : 'them'}; nobody is on record there.
      </p>
    {/if}
  {/if}
</section>
