<script lang="ts">
  import { api, ok, type Schemas } from '../../api/client';
  import TextField from '../../ui/TextField.svelte';
  import SheetForm from '../../ui/SheetForm.svelte';
  import { sheetChange, type SheetAnswer } from '../../ui/sheetChange.svelte';

  let {
    sheet,
    row,
    segmentName,
    done,
  }: {
    sheet: SheetAnswer;
    row?: Schemas['GearView'];
    segmentName: (id: number | null) => string;
    done: () => void;
  } = $props();
  type Port = Schemas['PortRequest'];
  const initial = () => ({
    name: row?.name ?? '',
    type: row?.type ?? ('SWITCH' as const),
    place: row?.place ?? '',
    ports: (row?.ports ?? []).map((p) => ({
      number: p.number,
      role: p.role as Port['role'],
      segmentId: p.segmentId ?? 0,
      poe: p.poe,
    })),
  });
  const f = $state(initial());
  const change = sheetChange({ sheet: () => sheet, done: () => done(), form: f, record: initial });
  let count = $state(String(f.ports.length || 8));

  /** As many ports as the gear has; those there are stay as they are. */
  function resize() {
    const wanted = Math.min(96, Math.max(0, Number(count) || 0));
    const numbers = new Set(f.ports.map((p) => p.number));
    for (let n = 1; f.ports.length < wanted; n++)
      if (!numbers.has(n))
        f.ports.push({ number: n, role: 'LAN', segmentId: sheet.data.segments[0]?.id ?? 0, poe: false });
    f.ports.sort((a, b) => a.number - b.number);
    f.ports.length = Math.min(f.ports.length, wanted);
    count = String(wanted);
  }
  if (!f.ports.length) resize();

  const save = () =>
    void change.run(({ path, header }) =>
      ok(
        api.PUT('/api/sites/{siteId}/gear/{id}', {
          params: { path: { ...path, id: row?.id ?? 0 }, header },
          body: { ...f, ports: f.ports.map((p) => ({ ...p, segmentId: p.segmentId || undefined })) },
        }),
      ),
    );
</script>

<SheetForm
  {change}
  shown={['name', 'place', 'ports']}
  label={row ? 'Keep the change' : 'Add it'}
  {save}
  remove={row && (() => void change.remove('GEAR', row.id))}
>
  <TextField
    label="Name"
    bind:value={f.name}
    error={change.problem?.field('name')}
    hint="Such as Shop switch"
    required
  />
  <div>
    <label class="field-label" for="gear-type">What it is</label>
    <select id="gear-type" class="select w-full" bind:value={f.type}>
      <option value="ROUTER">Router</option>
      <option value="SWITCH">Switch</option>
      <option value="ACCESS_POINT">Access point</option>
      <option value="MODEM">Modem</option>
    </select>
  </div>
  <TextField
    label="Place"
    bind:value={f.place}
    error={change.problem?.field('place')}
    list={sheet.data.places.map((p) => p.name)}
  />
  <div>
    <label class="field-label" for="gear-count">How many ports</label>
    <input
      id="gear-count"
      type="number"
      min="1"
      max="96"
      class="input w-full font-mono"
      bind:value={count}
      onchange={resize}
    />
  </div>
  <fieldset class="sm:col-span-2">
    <legend class="field-label">Ports</legend>
    <div class="max-h-80 overflow-y-auto border-y border-base-300">
      {#each f.ports as port, i (i)}
        <div
          class="grid grid-cols-[3rem_1fr_1fr_auto] items-center gap-2 border-b border-base-300 py-1 last:border-0"
        >
          <span class="font-mono">{port.number}</span>
          <select class="select select-sm" aria-label="Role of port {port.number}" bind:value={port.role}>
            <option value="LAN">LAN, for endpoints</option>
            <option value="WAN">WAN</option>
            <option value="UPLINK">uplink</option>
            <option value="OFF">off</option>
          </select>
          <select
            class="select select-sm"
            aria-label="Segment of port {port.number}"
            bind:value={port.segmentId}
          >
            <option value={0}>any segment</option>
            {#each sheet.data.segments as s (s.id)}<option value={s.id}>{segmentName(s.id)}</option>{/each}
          </select>
          <label class="flex items-center gap-1 pr-2 text-sm"
            ><input type="checkbox" bind:checked={port.poe} />feeds power</label
          >
        </div>
      {/each}
    </div>
    {#if change.problem?.field('ports')}<p class="mt-1 text-sm text-error">
        {change.problem.field('ports')}
      </p>{/if}
  </fieldset>
</SheetForm>
