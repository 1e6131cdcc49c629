<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { untrack } from 'svelte';
  import { SvelteMap } from 'svelte/reactivity';
  import { api, freshKey, ok, type Schemas } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import { endpointsQuery, sitesQuery } from '../../api/queries';
  import TextField from '../../ui/TextField.svelte';
  import TimeField from '../../ui/TimeField.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { asked, chosenOf, peopleOf, placesOf, shortOf, tasksOf, typed } from './visitForm';
  import VisitPeople from './VisitPeople.svelte';
  import VisitRoute from './VisitRoute.svelte';
  import VisitPlaces from './VisitPlaces.svelte';
  import VisitTasks from './VisitTasks.svelte';
  import VisitTools from './VisitTools.svelte';
  import VisitUnits from './VisitUnits.svelte';

  /** What a visit is to get done, by whom and with what. */
  let {
    siteId,
    visit,
    left,
    kept,
    leave,
  }: {
    siteId: number;
    visit?: Schemas['VisitView'];
    /** What is left of another visit, to be planned as one of its own. */
    left?: Schemas['VisitView'];
    kept: (id: number) => void;
    leave: () => void;
  } = $props();
  const client = useQueryClient();
  const change = useChange();
  const endpoints = createQuery(() => endpointsQuery(siteId));
  const sites = createQuery(() => sitesQuery);
  const key = freshKey();
  const was = untrack(() => visit);
  const like = untrack(() => visit ?? left);
  const f = $state(was ? typed(was) : { ...typed(like), begins: '', due: '' });
  let people = $state(peopleOf(like));
  let places = $state(placesOf(like));
  let tools = $state(shortOf(like));
  let tasks = $state(tasksOf(like));
  const chosen = new SvelteMap(chosenOf(like));
  let also = $state(like?.units.find((u) => u.siteId !== siteId)?.siteId ?? 0);
  const others = createQuery(() => ({ ...endpointsQuery(also), enabled: also > 0 }));
  const open = $derived(
    endpoints.data?.filter(
      (e) =>
        e.station === 'ONBOARD' || e.station === 'REGISTER' || e.station === 'CONFIRM' || chosen.has(e.id),
    ) ?? [],
  );
  const far = $derived(
    others.data?.filter(
      (e) =>
        e.station === 'ONBOARD' || e.station === 'REGISTER' || e.station === 'CONFIRM' || chosen.has(e.id),
    ) ?? [],
  );
  const names = $derived([...new Set(open.map((e) => e.place).filter(Boolean))]);
  const problem = $derived(change.problem);
  const body = () => asked(f, people, places, tools, tasks, chosen);

  async function keep(event: SubmitEvent) {
    event.preventDefault();
    let id = was?.head.id ?? 0;
    const done = await change.run(async () => {
      if (was)
        await ok(
          api.PUT('/api/visits/{id}', {
            params: { path: { id: was.head.id }, header: { 'If-Match': `"${was.version}"` } },
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

<form class="mt-3 grid max-w-6xl gap-x-10 gap-y-6 lg:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]" onsubmit={keep}>
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
    <VisitPeople bind:people {problem} />
    <fieldset class="grid gap-2">
      <legend class="font-bold">What is there</legend>
      <div class="grid grid-cols-2 gap-3 sm:grid-cols-4">
        <TextField
          label="Outlets"
          mono
          mode="numeric"
          bind:value={f.outlets}
          error={problem?.field('bench/outlets')}
          hint="On the bench"
        />
        <TextField
          label="Switch ports"
          mono
          mode="numeric"
          bind:value={f.ports}
          error={problem?.field('bench/ports')}
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
    <VisitPlaces bind:places {names} {problem} />
    <VisitTools bind:tools {open} {problem} />
  </div>
  <div class="grid content-start gap-6">
    <VisitUnits {chosen} {open} {problem} />
    <VisitRoute
      bind:also
      bind:travel={f.travel}
      sites={sites.data?.filter((s) => s.id !== siteId) ?? []}
      {chosen}
      {far}
      {problem}
    />
    <VisitTasks bind:tasks {names} {siteId} {problem} />
  </div>
  <div class="lg:col-span-2">
    <Trouble {problem} />
    <button class="btn btn-primary" disabled={change.busy}
      >{change.busy ? 'Working out who does what…' : was ? 'Plan it anew' : 'Plan it'}</button
    >
    <button type="button" class="btn btn-ghost" onclick={leave}>Leave it</button>
  </div>
</form>
