<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { untrack } from 'svelte';
  import { api, freshKey, ok, type Schemas } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import { endpointsQuery } from '../../api/queries';
  import TextField from '../../ui/TextField.svelte';
  import { hourOf, typedMoment } from '../../ui/time';
  import TimeField from '../../ui/TimeField.svelte';
  import Trouble from '../../ui/Trouble.svelte';

  /** What a visit is to get done, by whom and with what. */
  let {
    siteId,
    visit,
    kept,
    leave,
  }: {
    siteId: number;
    visit?: Schemas['VisitView'];
    kept: (id: number) => void;
    leave: () => void;
  } = $props();
  const client = useQueryClient();
  const change = useChange();
  const endpoints = createQuery(() => endpointsQuery(siteId));
  const key = freshKey();
  const was = untrack(() => visit);
  const hour = (at?: string | null) => (at ? hourOf(at) : '');
  const f = $state({
    name: was?.name ?? '',
    begins: was ? typedMoment(was.begins) : '',
    due: was?.due ? typedMoment(was.due) : '',
    outlets: was?.outlets?.toString() ?? '',
    ports: was?.ports?.toString() ?? '',
    megabits: was?.megabits ? String(was.megabits) : '',
    walk: String(was?.walk ?? 1),
  });
  let people = $state(
    was
      ? was.people.map((p) => ({
          name: p.name,
          skills: p.skills.join(', '),
          from: hour(p.from),
          until: hour(p.until),
        }))
      : [{ name: '', skills: '', from: '', until: '' }],
  );
  let places = $state(
    was?.places.map((p) => ({ place: p.place, from: hour(p.from), until: hour(p.until) })) ?? [],
  );
  let chosen = $state<Record<number, 'place' | 'bench'>>(
    Object.fromEntries(was?.units.map((u) => [u.endpointId, u.bench ? 'bench' : 'place']) ?? []),
  );
  const open = $derived(
    endpoints.data?.filter(
      (e) => e.station === 'ONBOARD' || e.station === 'REGISTER' || e.station === 'CONFIRM' || chosen[e.id],
    ) ?? [],
  );
  const names = $derived([...new Set(open.map((e) => e.place).filter(Boolean))]);
  const problem = $derived(change.problem);
  const number = (text: string) => (text.trim() ? Number(text.replace(',', '.')) : undefined);

  const body = (): Schemas['VisitPlanRequest'] => ({
    name: f.name,
    begins: f.begins,
    due: f.due || undefined,
    outlets: number(f.outlets),
    ports: number(f.ports),
    megabits: number(f.megabits),
    walk: number(f.walk) ?? 0,
    people: people.map((p) => ({
      name: p.name,
      skills: p.skills
        .split(',')
        .map((s) => s.trim())
        .filter(Boolean),
      from: p.from || undefined,
      until: p.until || undefined,
    })),
    places: places.map((p) => ({ ...p })),
    units: Object.entries(chosen).map(([id, where]) => ({
      endpointId: Number(id),
      bench: where === 'bench',
    })),
  });

  async function keep(event: SubmitEvent) {
    event.preventDefault();
    let id = was?.id ?? 0;
    const done = await change.run(async () => {
      if (was)
        await ok(
          api.PUT('/api/visits/{id}', {
            params: { path: { id: was.id }, header: { 'If-Match': `"${was.version}"` } },
            body: body(),
          }),
        );
      else
        id = (
          await ok(
            api.POST('/api/sites/{siteId}/visits', {
              params: { path: { siteId }, header: key },
              body: body(),
            }),
          )
        ).id;
      await ok(api.POST('/api/visits/{id}/plan', { params: { path: { id } } }));
    }, key);
    if (!done) return;
    await Promise.all([
      client.invalidateQueries({ queryKey: ['site', siteId, 'visits'] }),
      client.invalidateQueries({ queryKey: ['visit', id] }),
    ]);
    kept(id);
  }
</script>

<form class="mt-3 grid max-w-5xl gap-x-10 gap-y-6 lg:grid-cols-2" onsubmit={keep}>
  <div class="grid content-start gap-3">
    <TextField
      label="What the visit is called"
      bind:value={f.name}
      error={problem?.field('name')}
      required
      autofocus
    />
    <div class="grid gap-3 sm:grid-cols-2">
      <TimeField
        label="It begins"
        form="MOMENT"
        bind:value={f.begins}
        error={problem?.field('begins')}
        required
      />
      <TimeField
        label="Everything must be done by"
        form="MOMENT"
        bind:value={f.due}
        error={problem?.field('due')}
      />
    </div>
    <fieldset class="grid gap-2">
      <legend class="font-bold">Who comes</legend>
      {#each people as p, i (i)}
        <div class="grid items-start gap-2 sm:grid-cols-[1fr_1fr_6rem_6rem_auto]">
          <TextField label="Name" bind:value={p.name} error={problem?.field(`people/${i}/name`)} required />
          <TextField
            label="May do besides"
            bind:value={p.skills}
            error={problem?.field(`people/${i}/skills`)}
            list={['qualified electrician', 'licensed fitter']}
          />
          <TextField label="From" mono bind:value={p.from} error={problem?.field(`people/${i}/from`)} />
          <TextField label="Until" mono bind:value={p.until} error={problem?.field(`people/${i}/until`)} />
          {#if people.length > 1}<button
              type="button"
              class="btn mt-6 btn-ghost btn-sm"
              aria-label="{p.name || 'This person'} does not come"
              onclick={() => (people = people.filter((o) => o !== p))}>Leave out</button
            >{/if}
        </div>
      {/each}
      <Trouble problem={problem?.field('people') ? problem : null} />
      <button
        type="button"
        class="link justify-self-start text-sm text-primary"
        onclick={() => people.push({ name: '', skills: '', from: '', until: '' })}>One more person</button
      >
    </fieldset>
    <fieldset class="grid gap-2">
      <legend class="font-bold">What is there</legend>
      <div class="grid grid-cols-2 gap-3 sm:grid-cols-4">
        <TextField
          label="Outlets"
          mono
          mode="numeric"
          bind:value={f.outlets}
          error={problem?.field('outlets')}
          hint="On the bench"
        />
        <TextField
          label="Switch ports"
          mono
          mode="numeric"
          bind:value={f.ports}
          error={problem?.field('ports')}
          hint="On the bench"
        />
        <TextField
          label="Line, Mbit/s"
          mono
          bind:value={f.megabits}
          error={problem?.field('megabits')}
          hint="As measured"
        />
        <TextField
          label="Walk, min"
          mono
          mode="numeric"
          bind:value={f.walk}
          error={problem?.field('walk')}
          hint="Place to place"
        />
      </div>
    </fieldset>
    <fieldset class="grid gap-2">
      <legend class="font-bold">Places that are free only at some hours</legend>
      {#each places as p, i (i)}
        <div class="grid items-start gap-2 sm:grid-cols-[1fr_6rem_6rem_auto]">
          <TextField
            label="Place"
            bind:value={p.place}
            list={names}
            error={problem?.field(`places/${i}/place`)}
            required
          />
          <TextField
            label="Free from"
            mono
            bind:value={p.from}
            error={problem?.field(`places/${i}/from`)}
            required
          />
          <TextField
            label="Until"
            mono
            bind:value={p.until}
            error={problem?.field(`places/${i}/until`)}
            required
          />
          <button
            type="button"
            class="btn mt-6 btn-ghost btn-sm"
            onclick={() => (places = places.filter((o) => o !== p))}>Leave out</button
          >
        </div>
      {/each}
      <button
        type="button"
        class="link justify-self-start text-sm text-primary"
        onclick={() => places.push({ place: '', from: '', until: '' })}>Name a place</button
      >
    </fieldset>
  </div>
  <fieldset class="content-start">
    <legend class="font-bold">What is to be set up</legend>
    <Trouble problem={problem?.field('units') ? problem : null} />
    {#if open.length}
      <ul class="mt-1 max-h-[28rem] overflow-y-auto">
        {#each open as e (e.id)}
          <li class="flex items-center gap-3 border-b border-base-300 py-1">
            <label class="flex min-w-0 flex-1 items-center gap-3">
              <input
                type="checkbox"
                class="size-4"
                checked={!!chosen[e.id]}
                onchange={(c) => {
                  if (c.currentTarget.checked) chosen[e.id] = 'place';
                  else delete chosen[e.id];
                }}
              />
              <span class="min-w-0 truncate">{e.name} <span class="quiet text-sm">{e.place}</span></span>
            </label>
            {#if chosen[e.id]}
              <label class="flex items-center gap-1.5 text-sm">
                <input
                  type="checkbox"
                  class="size-4"
                  checked={chosen[e.id] === 'bench'}
                  onchange={(c) => (chosen[e.id] = c.currentTarget.checked ? 'bench' : 'place')}
                />on the bench<span class="sr-only">: {e.name}</span>
              </label>
            {/if}
          </li>
        {/each}
      </ul>
    {:else}
      <p class="mt-1">Nothing waits to be set up here. Plan an endpoint first.</p>
    {/if}
  </fieldset>
  <div class="lg:col-span-2">
    <Trouble {problem} />
    <button class="btn btn-primary" disabled={change.busy}
      >{change.busy ? 'Working out who does what…' : was ? 'Plan it anew' : 'Plan it'}</button
    >
    <button type="button" class="btn btn-ghost" onclick={leave}>Leave it</button>
  </div>
</form>
