<script lang="ts">
  import { api, ok, type Schemas } from '../../api/client';
  import TextField from '../../ui/TextField.svelte';
  import SheetForm from '../../ui/SheetForm.svelte';
  import { sheetChange, type SheetAnswer } from '../../ui/sheetChange.svelte';

  let { sheet, row, done }: { sheet: SheetAnswer; row?: Schemas['OutletRow']; done: () => void } = $props();
  const initial = () => ({
    name: row?.name ?? '',
    place: row?.place ?? '',
    state: (row?.state ?? 'UNKNOWN') as Schemas['OutletRequest']['state'],
    portId: row?.portId ?? 0,
  });
  const f = $state(initial());
  const change = sheetChange({ sheet: () => sheet, done: () => done(), form: f, record: initial });

  const save = () =>
    void change.run(({ path, header }) =>
      ok(
        api.PUT('/api/sites/{siteId}/outlets/{id}', {
          params: { path: { ...path, id: row?.id ?? 0 }, header },
          body: { ...f, portId: f.state === 'PATCHED' && f.portId ? f.portId : undefined },
        }),
      ),
    );
</script>

<SheetForm
  {change}
  shown={['name', 'place', 'port']}
  label={row ? 'Keep the change' : 'Add the outlet'}
  {save}
  remove={row && (() => void change.remove('OUTLETS', row.id))}
>
  <TextField
    label="Name"
    bind:value={f.name}
    error={change.problem?.field('name')}
    hint="As printed on it, such as F-07"
    required
  />
  <TextField
    label="Place"
    bind:value={f.place}
    error={change.problem?.field('place')}
    list={sheet.data.places.map((p) => p.name)}
  />
  <div>
    <label class="field-label" for="outlet-state">Where it leads</label>
    <select id="outlet-state" class="select w-full" bind:value={f.state}>
      <option value="UNKNOWN">not known</option>
      <option value="PATCHED">patched to a port</option>
      <option value="DEAD">dead</option>
    </select>
  </div>
  {#if f.state === 'PATCHED'}
    <div>
      <label class="field-label" for="outlet-port">Port</label>
      <select id="outlet-port" class="select w-full" bind:value={f.portId}>
        <option value={0}>choose one</option>
        {#each sheet.data.gear.flatMap((g) => g.ports) as p (p.id)}<option value={p.id}
            >{p.gear} {p.number}</option
          >{/each}
      </select>
      {#if change.problem?.field('port')}<p class="mt-1 text-sm text-error">
          {change.problem.field('port')}
        </p>{/if}
    </div>
  {/if}
</SheetForm>
