<script lang="ts">
  import FileField from '../../ui/FileField.svelte';
  import { createQuery } from '@tanstack/svelte-query';
  import { untrack } from 'svelte';
  import { api, bytes, ok, type Schemas } from '../../api/client';
  import { registryChoicesQuery } from '../../api/queries';
  import Knot from '../../ui/Knot.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { registerWork } from './acts.svelte';

  /** What a registry really holds, beside what it should: compared first, then taken over. */
  let { registry, siteId, done }: { registry: Schemas['RegistryView']; siteId: number; done: () => void } =
    $props();
  const choices = createQuery(() => registryChoicesQuery);
  const work = registerWork(() => siteId);
  let form = $state(untrack(() => registry.rules.form));
  let text = $state('');
  let file = $state<File | null>(null);
  let report = $state<Schemas['HoldingsView'] | null>(null);
  type Outcome = Schemas['Compared']['outcome'];
  const KNOTS = { DIFFERS: 'FAILED', STRANGER: 'FAILED', MISSING: 'PENDING', AS_WANTED: 'PASSED' } as const;
  const WORDS: Record<Outcome, string> = {
    DIFFERS: 'differs',
    STRANGER: 'not ours',
    MISSING: 'not there',
    AS_WANTED: 'right',
  };

  const send = (preview: boolean) =>
    work.run(async () => {
      report = await ok(
        api.POST('/api/registries/{id}/holdings', {
          params: { path: { id: registry.id }, query: { form, preview } },
          ...bytes(file ?? new Blob([text])),
        }),
      );
    }, preview);
  const changed = () => (report = null);
</script>

<form
  class="grid gap-x-6 gap-y-3 sm:grid-cols-2"
  onsubmit={(e) => {
    e.preventDefault();
    void send(true);
  }}
>
  <div>
    <label class="field-label" for="holdings-form">Form of the list</label>
    <select id="holdings-form" class="select w-full" bind:value={form} onchange={changed}>
      {#each choices.data?.forms ?? [] as c (c.form)}<option value={c.form}>{c.words}</option>{/each}
    </select>
  </div>
  <div>
    <FileField label="Its file" id="holdings-file" chosen={(f) => ((file = f), changed())} />
  </div>
  <div class="sm:col-span-2">
    <label class="field-label" for="holdings-text">Or paste it here</label>
    <textarea
      id="holdings-text"
      class="textarea h-32 w-full font-mono text-[13px] leading-snug"
      spellcheck="false"
      bind:value={text}
      oninput={() => ((file = null), changed())}
    ></textarea>
  </div>
  <div class="sm:col-span-2">
    <button class="btn btn-outline btn-primary" disabled={work.busy || (!text.trim() && !file)}
      >Compare</button
    >
  </div>
</form>
<Trouble problem={work.problem} />
<div role="status" class="mt-4">
  {#if report?.problems.length}
    <h3 class="font-bold">The list cannot be read; nothing is taken</h3>
    <ul class="mt-1 text-sm">
      {#each report.problems.slice(0, 20) as p (p.line + p.message)}<li>
          <span class="font-mono">Line {p.line}</span>
          {p.column && 'in ' + p.column}: {p.message}
        </li>{/each}
    </ul>
  {:else if report}
    <h3 class="font-bold">
      {report.asWanted} of {report.lines.length} as it should be
    </h3>
    <ul class="mt-1">
      {#each report.lines as l (l.outcome + l.line + l.name)}
        <li class="flex items-start gap-2.5 border-b border-base-300 py-1.5 text-sm" data-outcome={l.outcome}>
          <Knot state={KNOTS[l.outcome]} size={22} />
          <span class="min-w-0"
            ><span class="font-semibold">{l.name}</span> <span class="quiet">{WORDS[l.outcome]}.</span>
            {#if l.outcome !== 'AS_WANTED'}{l.said}{/if}</span
          >
        </li>
      {/each}
    </ul>
    {#if report.preview}<button class="btn mt-3 btn-primary" disabled={work.busy} onclick={() => send(false)}
        >Take it over</button
      >
      <span class="quiet text-sm">What stands there counts as entered; what does not waits again.</span>
    {:else}<p class="mt-2 text-success">Taken over.</p>
      <button class="btn mt-2 btn-ghost" onclick={done}>Done</button>{/if}
  {/if}
</div>
