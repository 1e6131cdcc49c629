<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import type { Problem, Schemas } from '../../api/client';
  import { kindsQuery } from '../../api/queries';
  import TextField from '../../ui/TextField.svelte';
  import type { Short } from './visitForm';

  /** Tools of which there are too few for everybody, and what they are needed for. */
  let {
    tools = $bindable(),
    open,
    problem,
  }: { tools: Short[]; open: Schemas['EndpointLine'][]; problem: Problem | null } = $props();
  const all = createQuery(() => kindsQuery);
  const kinds = $derived(
    (all.data ?? [])
      .filter((k) => open.some((e) => e.kind === k.id))
      .map((k) => ({ id: k.id, noun: k.noun })),
  );
</script>

<fieldset class="grid gap-2">
  <legend class="font-bold">Tools of which there are few</legend>
  {#each tools as t, i (i)}
    <div class="grid items-start gap-2 sm:grid-cols-[1fr_5rem_1fr_auto]">
      <TextField
        label="Tool or lead"
        bind:value={t.tool}
        error={problem?.field(`tools/${i}/tool`)}
        required
      />
      <TextField
        label="How many"
        mono
        mode="numeric"
        bind:value={t.count}
        error={problem?.field(`tools/${i}/count`)}
        required
      />
      <label class="block">
        <span class="mb-1 block text-sm font-semibold">For every</span>
        <select class="select w-full" bind:value={t.kind}>
          {#each kinds as k (k.id)}<option value={k.id}>{k.noun}</option>{/each}
        </select>
        {#if problem?.field(`tools/${i}/kind`)}<span class="text-sm text-error"
            >{problem.field(`tools/${i}/kind`)}</span
          >{/if}
      </label>
      <button
        type="button"
        class="btn mt-6 btn-ghost btn-sm"
        onclick={() => (tools = tools.filter((o) => o !== t))}>Leave out</button
      >
    </div>
  {/each}
  <button
    type="button"
    class="link justify-self-start text-sm text-primary"
    onclick={() => tools.push({ tool: '', count: '1', kind: kinds[0]?.id ?? '' })}>Name a tool</button
  >
</fieldset>
