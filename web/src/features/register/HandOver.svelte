<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { untrack } from 'svelte';
  import { api, asProblem, freshKey, ok, type Problem, type Schemas } from '../../api/client';
  import { registryChoicesQuery } from '../../api/queries';
  import TextField from '../../ui/TextField.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { registerWork } from './acts.svelte';
  import { listed } from './states';

  /** The list of a registry as it goes out: seen first, then handed over. */
  let { registry, siteId, done }: { registry: Schemas['RegistryView']; siteId: number; done: () => void } =
    $props();
  const choices = createQuery(() => registryChoicesQuery);
  const work = registerWork(() => siteId);
  const key = freshKey();
  const f = $state(
    untrack(() => ({
      form: registry.rules.form,
      onlyChanges: !!registry.handedOverAt,
      owner: '',
      shared: '',
    })),
  );
  let view = $state<Schemas['HandOverView'] | null>(null);
  let handed = $state(false);
  let problem = $state<Problem | null>(null);
  let copied = $state(false);
  const body = $derived({
    form: f.form,
    onlyChanges: f.onlyChanges,
    owner: f.owner,
    sharedWith: listed(f.shared),
  });
  const count = $derived(view ? view.added + view.changed + view.gone : 0);
  const send = (preview: boolean) =>
    ok(
      api.POST('/api/registries/{id}/hand-overs', {
        params: { path: { id: registry.id }, header: key },
        body: { ...body, preview },
      }),
    );

  $effect(() => {
    const asked = body;
    if (handed) return;
    const timer = setTimeout(async () => {
      try {
        view = await send(true);
        problem = null;
      } catch (error) {
        problem = asProblem(error);
      }
    }, 180);
    return () => (clearTimeout(timer), void asked);
  });

  async function handOver() {
    // The form is locked from here on, so that what is shown is what was handed over.
    handed = await work.run(async () => (view = await send(false)));
  }

  async function copy() {
    await navigator.clipboard.writeText(view?.text ?? '');
    copied = true;
  }

  function save() {
    const link = document.createElement('a');
    link.href = URL.createObjectURL(new Blob([view?.text ?? '']));
    link.download = view?.file ?? 'list';
    link.click();
    URL.revokeObjectURL(link.href);
  }
</script>

<div class="grid gap-x-6 gap-y-3 sm:grid-cols-2">
  <div>
    <label class="field-label" for="hand-over-form">Form</label>
    <select id="hand-over-form" class="select w-full" bind:value={f.form} disabled={handed}>
      {#each choices.data?.forms ?? [] as form (form.form)}<option value={form.form}>{form.words}</option
        >{/each}
    </select>
  </div>
  <label class="flex items-center gap-2 self-end pb-2"
    ><input type="checkbox" class="size-4" bind:checked={f.onlyChanges} disabled={handed} />Only what changed
    since the last hand-over</label
  >
  {#if registry.rules.ownerNeeded}<TextField label="Owner of the new entries" bind:value={f.owner} />{/if}
  {#if registry.rules.sharing === 'BY_KIND'}<TextField
      label="New entries are shared with"
      bind:value={f.shared}
      hint="Names, parted by commas"
    />{/if}
</div>
<Trouble problem={problem ?? work.problem} />
{#if view}
  {#if view.objected.length && !handed}
    <section class="mt-4" aria-label="What stays here">
      <h3 class="font-bold">
        {view.objected.length === 1 ? 'One unit stays' : view.objected.length + ' units stay'} here until put right
      </h3>
      <ul class="mt-1 grid gap-1 text-sm">
        {#each view.objected as o (o.endpointId)}<li>
            <span class="font-semibold">{o.endpoint}</span>
            <span class="text-error">{o.objections[0]?.message}</span>
          </li>{/each}
      </ul>
    </section>
  {/if}
  {#if view.leftOut.length}<p class="caution mt-3">
      This form needs an address; left out: {view.leftOut.join(', ')}.
    </p>{/if}
  <label class="field-label mt-4" for="hand-over-text"
    >{handed ? 'Handed over' : 'What goes out'}: {view.added} new, {view.changed} changed, {view.gone} to take out</label
  >
  <textarea
    id="hand-over-text"
    class="textarea h-56 w-full font-mono text-[13px] leading-snug whitespace-pre"
    readonly
    value={view.text}
  ></textarea>
  <div class="mt-3 flex flex-wrap items-center gap-2">
    {#if !handed}<button class="btn btn-primary" disabled={work.busy || !count} onclick={handOver}
        >Hand over {count}</button
      >
      <span class="quiet text-sm"
        >{count
          ? 'They count as handed in from then on.'
          : 'Nothing has changed since the last hand-over.'}</span
      >
    {:else}
      <button class="btn btn-primary" onclick={save}>Save {view.file}</button>
      <button class="btn btn-outline btn-primary" onclick={copy}>Copy it</button>
      <button class="btn btn-ghost" onclick={done}>Done</button>
      <span role="status" class="text-success">{copied ? 'Copied.' : ''}</span>
    {/if}
  </div>
{/if}
