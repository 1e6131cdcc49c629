<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import type { Problem } from '../../api/client';
  import TextField from '../../ui/TextField.svelte';
  import { waitingQuery } from './queries';
  import type { Task } from './visitForm';

  /** Whatever else is to be done there, typed or taken from what waits at the site. */
  let {
    tasks = $bindable(),
    names,
    siteId,
    problem,
  }: { tasks: Task[]; names: string[]; siteId: number; problem: Problem | null } = $props();
  const waiting = createQuery(() => waitingQuery(siteId));
  const offered = $derived((waiting.data ?? []).filter((n) => !tasks.some((t) => t.title === n.title)));
  const usual = { place: '', minutes: '10', skill: '' };
</script>

<fieldset class="grid gap-2">
  <legend class="font-bold">What else is to be done</legend>
  {#each tasks as t, i (i)}
    <div class="grid items-start gap-2 sm:grid-cols-[1fr_7rem_4.5rem_auto]">
      <TextField label="Task" bind:value={t.title} error={problem?.field(`tasks/${i}/title`)} required />
      <TextField label="Place" bind:value={t.place} list={names} error={problem?.field(`tasks/${i}/place`)} />
      <TextField
        label="Minutes"
        mono
        mode="numeric"
        bind:value={t.minutes}
        error={problem?.field(`tasks/${i}/minutes`)}
        required
      />
      <button
        type="button"
        class="btn mt-6 btn-ghost btn-sm"
        onclick={() => (tasks = tasks.filter((o) => o !== t))}>Leave out</button
      >
    </div>
  {/each}
  <button
    type="button"
    class="link justify-self-start text-sm text-primary"
    onclick={() => tasks.push({ title: '', ...usual })}>Name a task</button
  >
  {#each offered as n (n.title)}
    <button
      type="button"
      class="link justify-self-start text-left text-sm"
      onclick={() => tasks.push({ title: n.title, ...usual })}
      >{n.title}: take it along <span class="quiet">({n.detail})</span></button
    >
  {/each}
</fieldset>
