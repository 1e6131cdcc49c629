<script lang="ts">
  import type { Schemas } from '../../api/client';
  import { minutes } from '../../ui/time';
  import { at } from '../../router';

  /** After a visit: what is left, and hands as they really were beside what was planned. */
  let { visit }: { visit: Schemas['VisitView'] } = $props();
  const left = $derived(visit.units.filter((u) => !u.done));
  const real = $derived(visit.real.reduce((sum, m) => sum + m.minutes, 0));
  const planned = $derived(visit.real.reduce((sum, m) => sum + m.planned, 0));
  const name = (id: number) => visit.units.find((u) => u.endpointId === id)?.endpoint ?? '';
</script>

<div class="mt-4 grid gap-10 lg:grid-cols-2">
  <section aria-label="How it went">
    <h2>How it went</h2>
    {#if visit.real.length}
      <p class="mt-1">
        Hands took {minutes(real)} where {minutes(planned)} were planned.
      </p>
      <table class="table mt-2">
        <thead
          ><tr><th>Step</th><th class="text-right">Real</th><th class="text-right">Planned</th></tr></thead
        >
        <tbody>
          {#each visit.real as m (m.endpointId + m.step)}
            <tr
              ><td>{name(m.endpointId)}: {m.step}</td><td class="text-right font-mono"
                >{minutes(m.minutes)}</td
              ><td class="text-right font-mono">{minutes(m.planned)}</td></tr
            >
          {/each}
        </tbody>
      </table>
    {:else}
      <p class="mt-1">Nobody took anything in hand on this visit, so no minutes were noted.</p>
    {/if}
  </section>
  <section aria-label="What is left">
    <h2>What is left</h2>
    {#if left.length}
      <ul class="mt-1">
        {#each left as u (u.endpointId)}
          <li class="border-b border-base-300 py-1">
            <a class="hover:underline" href={at(visit.head.siteId, 'onboard', u.endpointId)}>{u.endpoint}</a>
            <span class="quiet text-sm">{minutes(u.hands)} of hands, {minutes(u.chain)} in all</span>
          </li>
        {/each}
      </ul>
    {:else}
      <p class="mt-1">Everything that was to be set up is done.</p>
    {/if}
  </section>
</div>
