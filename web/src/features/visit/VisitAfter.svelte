<script lang="ts">
  import type { Schemas } from '../../api/client';
  import { minutes } from '../../ui/time';
  import { at } from '../../router';

  /** After a visit: what is left, and hands as they really were beside what was planned. */
  let { visit, again }: { visit: Schemas['VisitView']; again?: () => void } = $props();
  const left = $derived(visit.units.filter((u) => !u.done));
  const tasks = $derived(visit.tasks.filter((t) => !t.done));
  const real = $derived(visit.real.reduce((sum, m) => sum + m.minutes, 0));
  const there = $derived(visit.people.reduce((sum, p) => sum + p.there, 0));
  const planned = $derived(visit.real.reduce((sum, m) => sum + m.planned, 0));
  const name = (id: number) => visit.units.find((u) => u.endpointId === id)?.endpoint ?? '';
</script>

<div class="mt-4 grid gap-10 lg:grid-cols-2">
  <section aria-label="How it went">
    <h2>How it went</h2>
    <p class="mt-1">
      {#each visit.people as p, i (p.name)}{i ? ', ' : ''}{p.name}{i ? '' : ' was there'} for {minutes(
          p.there,
        )}{/each}{visit.people.length > 1
        ? `: ${minutes(there)} in all, for the invoice`
        : ', for the invoice'}.
    </p>
    {#if visit.real.length}
      <p class="mt-1">
        Hands took {minutes(real)} where {minutes(planned)} were planned.
      </p>
      <p class="mt-1">
        Offer {minutes(visit.offer.minutes)} of hands for the same again:
        {#if visit.offer.known}
          four of five times {visit.offer.known} of its {visit.offer.steps} steps took no longer{visit.offer
            .known < visit.offer.steps
            ? ', and the others are as planned'
            : ''}.
        {:else}
          as planned, since a step counts by itself from the eighth time on.
        {/if}
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
      <p class="mt-1">No step was done in anybody's hands on this visit, so no minutes were noted.</p>
    {/if}
  </section>
  <section aria-label="What is left">
    <h2>What is left</h2>
    {#if left.length || tasks.length}
      <ul class="mt-1">
        {#each tasks as t (t.id)}<li class="border-b border-base-300 py-1">
            {t.title} <span class="quiet text-sm">{minutes(t.minutes)}</span>
          </li>{/each}
        {#each left as u (u.endpointId)}
          <li class="border-b border-base-300 py-1">
            <a class="hover:underline" href={at(u.siteId, 'onboard', u.endpointId)}>{u.endpoint}</a>
            <span class="quiet text-sm">{minutes(u.hands)} of hands, {minutes(u.chain)} in all</span>
          </li>
        {/each}
      </ul>
      {#if again}<button class="btn mt-3 btn-sm" onclick={again}>Plan what is left as another visit</button
        >{/if}
    {:else}
      <p class="mt-1">Everything that was to be set up is done.</p>
    {/if}
  </section>
</div>
