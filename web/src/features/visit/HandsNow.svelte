<script lang="ts">
  import { api, ok, type Schemas } from '../../api/client';
  import { serverClock } from '../../ui/now.svelte';
  import { minutes, when } from '../../ui/time';
  import { at } from '../../router';

  /** One line for each pair of hands: what to do now, where, and why that. */
  let {
    visit,
    mayWork,
    run,
    busy,
  }: {
    visit: Schemas['VisitView'];
    mayWork: boolean;
    run: (call: () => Promise<Schemas['VisitView']>) => Promise<boolean>;
    busy: boolean;
  } = $props();
  const atIt = (since: string) =>
    Date.parse(since) > serverClock.millis
      ? `On the way, there at ${when(since, serverClock.millis)}.`
      : `At it for ${minutes(serverClock.minutesSince(since))}.`;
  const params = (person: number) => ({ path: { id: visit.head.id, person } });
  const take = (p: number) =>
    run(() => ok(api.POST('/api/visits/{id}/people/{person}/take', { params: params(p) })));
  const drop = (p: number) =>
    run(() => ok(api.POST('/api/visits/{id}/people/{person}/drop', { params: params(p) })));
  const done = (p: number) =>
    run(() => ok(api.POST('/api/visits/{id}/people/{person}/done', { params: params(p) })));
  const setAside = (p: number) =>
    run(() => ok(api.POST('/api/visits/{id}/people/{person}/set-aside', { params: params(p) })));
  const takeIn = (endpointId: number) =>
    run(() =>
      ok(
        api.POST('/api/visits/{id}/units/{endpointId}/take-in', {
          params: { path: { id: visit.head.id, endpointId } },
        }),
      ),
    );
  const aside = $derived(visit.units.filter((u) => u.aside));
  const leave = (p: number) =>
    run(() =>
      ok(
        api.POST('/api/visits/{id}/people/{person}/leave', {
          params: { ...params(p), header: { 'If-Match': `"${visit.version}"` } },
        }),
      ),
    );
</script>

<ul class="mt-4 grid gap-3" aria-label="What to do now">
  {#each visit.people as p, i (p.name)}
    <li class="flex flex-wrap items-center gap-x-4 gap-y-1 border-l-4 border-accent bg-base-200 px-3 py-2">
      <span class="w-32 truncate font-bold">{p.name}</span>
      <span class="min-w-60 flex-1">
        {#if p.now.what === 'DONE'}
          {p.now.because}
        {:else if p.now.what === 'WAIT'}
          <span class="font-semibold"
            >{p.now.unitId ? `Nothing before ${when(p.now.at, serverClock.millis)}.` : 'Nothing now.'}</span
          >
          <span class="quiet block text-sm">{p.now.because}</span>
        {:else}
          {#if (p.now.unitId ?? 0) > 0}<a
              class="link font-semibold"
              href={at(p.now.siteId, 'onboard', p.now.unitId ?? 0)}>{p.now.unit}: {p.now.title}</a
            >{:else}<span class="font-semibold">{p.now.title}</span>{/if}
          {#if p.now.steps > 1}<span class="quiet text-sm">and {p.now.steps - 1} more after it</span>{/if}
          <span class="quiet block text-sm"
            >{p.now.place ? p.now.place + '. ' : ''}{p.now.what === 'GO_ON' && p.now.since
              ? atIt(p.now.since)
              : p.now.because}{p.now.what === 'DO' && p.now.carry.length
              ? ` Carry ${p.now.carry.map((c) => c.replace(/(?<=^|× )[A-Z](?=[a-z -])/, (l) => l.toLowerCase())).join(', ')}.`
              : ''}</span
          >
        {/if}
      </span>
      {#if mayWork && !p.gone}
        {#if p.now.what === 'DO'}<button
            class="btn btn-primary btn-sm"
            disabled={busy}
            onclick={() => take(i)}>{p.name.split(' ')[0]} takes it</button
          >{/if}
        {#if p.now.what === 'GO_ON' && (p.now.unitId ?? 0) < 0}<button
            class="btn btn-primary btn-sm"
            disabled={busy}
            onclick={() => done(i)}>It is done</button
          >{/if}
        {#if p.now.what === 'GO_ON'}<button
            class="btn btn-ghost btn-sm"
            disabled={busy}
            onclick={() => drop(i)}>Let go of it</button
          >{/if}
        {#if p.now.what === 'GO_ON' && (p.now.unitId ?? 0) > 0}<button
            class="btn btn-ghost btn-sm"
            disabled={busy}
            onclick={() => setAside(i)}>Leave it for another day</button
          >{/if}
        {#if visit.people.filter((o) => !o.gone).length > 1}<button
            class="btn btn-ghost btn-sm"
            disabled={busy}
            onclick={() => leave(i)}>{p.name.split(' ')[0]} leaves</button
          >{/if}
      {/if}
    </li>
  {/each}
</ul>
{#if aside.length}
  <ul class="mt-3 flex flex-wrap gap-x-6 gap-y-1" aria-label="Left for another day">
    {#each aside as u (u.endpointId)}
      <li class="flex items-center gap-2">
        <span
          >Left for another day: <a class="link" href={at(u.siteId, 'onboard', u.endpointId)}>{u.endpoint}</a
          ></span
        >
        {#if mayWork}<button class="btn btn-ghost btn-sm" disabled={busy} onclick={() => takeIn(u.endpointId)}
            >Take it in again</button
          >{/if}
      </li>
    {/each}
  </ul>
{/if}
