<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, ok, type Schemas } from '../../api/client';
  import { kindsQuery } from '../../api/queries';
  import TextField from '../../ui/TextField.svelte';
  import SheetForm from '../../ui/SheetForm.svelte';
  import { sheetChange, type SheetAnswer } from '../../ui/sheetChange.svelte';

  let { sheet, row, done }: { sheet: SheetAnswer; row?: Schemas['ServiceRow']; done: () => void } = $props();
  type Spoken = Schemas['ServiceRequest']['protocol'];
  const SPEAKS: [Spoken, string, number][] = [
    ['SMTP', 'mail on its way out', 587],
    ['HTTPS', 'a secure web page', 443],
    ['HTTP', 'a web page', 80],
    ['NTP', 'time', 123],
    ['DNS', 'names', 53],
    ['FILE', 'shared folders', 445],
    ['IPP', 'printing', 631],
    ['RAW_PRINT', 'raw printing', 9100],
  ];
  const initial = () => ({
    name: row?.name ?? '',
    protocol: (row?.protocol ?? 'SMTP') as Spoken,
    host: row?.host ?? '',
    port: String(row?.port ?? 587),
    kinds: (row?.kinds ?? '').split(',').filter(Boolean),
  });
  const f = $state(initial());
  const change = sheetChange({ sheet: () => sheet, done: () => done(), form: f, record: initial });
  const kinds = createQuery(() => kindsQuery);
  const callers = $derived((kinds.data ?? []).filter((k) => k.callsOut));

  const save = () =>
    void change.run(({ path, header }) =>
      ok(
        api.PUT('/api/sites/{siteId}/services/{id}', {
          params: { path: { ...path, id: row?.id ?? 0 }, header },
          body: { ...f, port: Number(f.port) || 0 },
        }),
      ),
    );
</script>

<SheetForm
  {change}
  shown={['name', 'host', 'port', 'protocol']}
  label={row ? 'Keep the change' : 'List the service'}
  {save}
  remove={row && (() => void change.remove('SERVICES', row.id))}
>
  <TextField
    label="Name"
    bind:value={f.name}
    error={change.problem?.field('name')}
    hint="As people call it, such as Mail relay"
    required
  />
  <div>
    <label class="field-label" for="service-speaks">It offers</label>
    <select
      id="service-speaks"
      class="select w-full"
      bind:value={f.protocol}
      onchange={() => (f.port = String(SPEAKS.find(([p]) => p === f.protocol)?.[2] ?? f.port))}
    >
      {#each SPEAKS as [value, words] (value)}<option {value}>{words}</option>{/each}
    </select>
  </div>
  <TextField
    label="Host"
    bind:value={f.host}
    error={change.problem?.field('host')}
    hint="A name, or an address in one of the site's segments"
    required
  />
  <TextField label="Port" bind:value={f.port} error={change.problem?.field('port')} required />
  <fieldset class="sm:col-span-2">
    <legend class="field-label">Which of them call it</legend>
    <div class="grid grid-cols-3 gap-x-4 gap-y-1 text-sm max-sm:grid-cols-1">
      {#each callers as k (k.id)}
        <label class="flex items-center gap-2"
          ><input type="checkbox" class="size-4" value={k.id} bind:group={f.kinds} />{k.name}</label
        >
      {/each}
    </div>
    <p class="quiet mt-1 text-sm">
      {f.kinds.length
        ? 'When it does not answer, these do not pass their check.'
        : 'With none chosen it is tried for all whose port fits, and proves nothing against any of them.'}
    </p>
  </fieldset>
</SheetForm>
