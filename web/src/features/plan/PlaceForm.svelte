<script lang="ts">
  import { api, ok, type Schemas } from '../../api/client';
  import TextField from '../../ui/TextField.svelte';
  import SheetForm from '../../ui/SheetForm.svelte';
  import { sheetChange, type SheetAnswer } from '../../ui/sheetChange.svelte';

  let { sheet, row, done }: { sheet: SheetAnswer; row?: Schemas['PlaceRow']; done: () => void } = $props();
  const initial = () => ({ name: row?.name ?? '', walk: String(row?.walk ?? '') });
  const f = $state(initial());
  const change = sheetChange({ sheet: () => sheet, done: () => done(), form: f, record: initial });

  const save = () =>
    void change.run(({ path, header }) =>
      ok(
        api.PUT('/api/sites/{siteId}/places/{id}', {
          params: { path: { ...path, id: row?.id ?? 0 }, header },
          body: { name: f.name, walk: Number(f.walk) || 0 },
        }),
      ),
    );
</script>

<SheetForm
  {change}
  shown={['name']}
  label={row ? 'Keep the change' : 'Add the place'}
  {save}
  remove={row && (() => void change.remove('PLACES', row.id))}
>
  <TextField
    label="Name"
    bind:value={f.name}
    error={change.problem?.field('name')}
    hint="Such as Front counter"
    required
  />
  {#if row}<TextField
      label="Comes at"
      bind:value={f.walk}
      hint="Lower comes earlier when walking"
      mono
    />{/if}
</SheetForm>
