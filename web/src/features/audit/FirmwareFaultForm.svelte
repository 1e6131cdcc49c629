<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, ok } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import { kindsQuery } from '../../api/queries';
  import TextField from '../../ui/TextField.svelte';
  import Trouble from '../../ui/Trouble.svelte';

  /** A fault becomes known: of which kind or model, and which version mends it. */
  let { siteId, kind }: { siteId: number; kind: string } = $props();
  const kinds = createQuery(() => kindsQuery);
  const change = useChange(() => [['site', siteId, 'firmware']]);
  let open = $state(false);
  let form = $state({ kind: '', model: '', mendedIn: '', what: '' });
  const wrong = $derived(change.problem);
  const placed = $derived(['kind', 'model', 'mendedIn', 'what'].some((f) => wrong?.field(f)));

  async function keep(ev: SubmitEvent) {
    ev.preventDefault();
    const body = { ...form, kind: form.kind || kind };
    if (await change.run(() => ok(api.PUT('/api/firmware-faults', { body })))) {
      open = false;
      form = { kind: '', model: '', mendedIn: '', what: '' };
    }
  }
</script>

{#if !open}
  <button class="btn mt-3 btn-outline btn-primary btn-sm" onclick={() => ((open = true), change.clear())}
    >A fault became known</button
  >
{:else}
  <form class="mt-3 grid max-w-3xl gap-3 sm:grid-cols-3" onsubmit={keep}>
    <h2 class="font-bold sm:col-span-3">A fault became known</h2>
    <div>
      <label class="field-label" for="faulty-kind">Of which kind</label>
      <select
        id="faulty-kind"
        class="select w-full"
        value={form.kind || kind}
        onchange={(e) => (form.kind = e.currentTarget.value)}
      >
        {#each kinds.data ?? [] as k (k.id)}<option value={k.id}>{k.name}</option>{/each}
      </select>
    </div>
    <TextField
      label="Only this model"
      bind:value={form.model}
      error={wrong?.field('model')}
      hint="Blank for all"
    />
    <TextField
      label="First version without it"
      bind:value={form.mendedIn}
      error={wrong?.field('mendedIn')}
      required
    />
    <div class="sm:col-span-3">
      <TextField label="What it does" bind:value={form.what} error={wrong?.field('what')} required />
    </div>
    {#if wrong && !placed}<Trouble problem={wrong} />{/if}
    <div class="flex gap-2 sm:col-span-3">
      <button class="btn btn-primary" disabled={change.busy}>See who has it</button>
      <button type="button" class="btn btn-ghost" onclick={() => (open = false)}>Never mind</button>
    </div>
  </form>
{/if}
