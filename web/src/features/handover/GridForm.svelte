<script lang="ts">
  import { useQueryClient } from '@tanstack/svelte-query';
  import { api, ok, type Schemas } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import TextField from '../../ui/TextField.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { gridsQuery } from './queries';

  /** A sheet of labels of the shop's own, measured with a ruler; begins from the one that is chosen. */
  let { like, lead, kept }: { like?: Schemas['GridView']; lead: boolean; kept: (name: string) => void } =
    $props();
  const client = useQueryClient();
  const change = useChange();
  const FIELDS: [keyof Schemas['GridRequest'], string][] = [
    ['paperWidth', 'Paper, width in mm'],
    ['paperHeight', 'Paper, height in mm'],
    ['columns', 'Labels side by side'],
    ['rows', 'Labels one below the other'],
    ['labelWidth', 'Label, width in mm'],
    ['labelHeight', 'Label, height in mm'],
    ['left', 'From the left edge to the first, in mm'],
    ['top', 'From the upper edge to the first, in mm'],
    ['acrossGap', 'Gap side by side, in mm'],
    ['downGap', 'Gap one below the other, in mm'],
  ];
  function begin(): Schemas['GridRequest'] {
    const g = like?.grid;
    return Object.fromEntries([
      ['name', like?.id ? g?.name : ''],
      ...FIELDS.map(([key]) => [key, String(g?.[key] ?? '')]),
    ]) as Schemas['GridRequest'];
  }
  let f = $state(begin());

  async function keep() {
    const done = await change.run(async () =>
      client.setQueryData(gridsQuery.queryKey, await ok(api.POST('/api/label-grids', { body: f }))),
    );
    if (done) kept(f.name.trim());
  }
  async function drop(id: number) {
    await change.run(() => ok(api.DELETE('/api/label-grids/{id}', { params: { path: { id } } })));
    void client.invalidateQueries(gridsQuery);
  }
</script>

<form
  class="grid gap-3 border-l-4 border-accent pl-3"
  onsubmit={(e) => {
    e.preventDefault();
    void keep();
  }}
>
  <TextField label="Its name" bind:value={f.name} error={change.problem?.field('name')} required />
  <div class="grid grid-cols-2 items-end gap-3">
    {#each FIELDS as [key, label] (key)}<TextField
        {label}
        bind:value={f[key]}
        error={change.problem?.field(key)}
        mono
        required
      />{/each}
  </div>
  <Trouble problem={change.problem?.errors.length ? null : change.problem} />
  <div class="flex flex-wrap gap-2">
    <button class="btn btn-primary btn-sm" disabled={change.busy}>Keep this sheet</button>
    {#if like?.id && lead}<button
        type="button"
        class="btn btn-ghost btn-sm"
        onclick={() => drop(like.id ?? 0)}>Drop “{like.grid.name}”</button
      >{/if}
  </div>
</form>
