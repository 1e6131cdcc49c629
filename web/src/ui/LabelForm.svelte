<script lang="ts">
  import Camera from '@lucide/svelte/icons/camera';
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { untrack } from 'svelte';
  import { api, asProblem, bytes, ok, okWithTag, type Problem, type Schemas } from '../api/client';
  import { outbox } from '../api/outbox.svelte';
  import { labelsQuery } from '../api/queries';
  import Dialog from './Dialog.svelte';
  import { kept as keptHere } from './kept.svelte';
  import { madeFrom } from './madeFrom.svelte';
  import Meanwhile from './Meanwhile.svelte';
  import { saidOf } from './labelRead';
  import ReadField from './ReadField.svelte';
  import TextField from './TextField.svelte';
  import Trouble from './Trouble.svelte';
  import { readMac, readSerial } from '../api/readers';
  import NeighbourTable from './NeighbourTable.svelte';

  let {
    endpoint,
    onkept,
    next,
  }: {
    endpoint: { data: Schemas['EndpointView']; etag: string };
    onkept?: () => void;
    /** Goes to the next label that is still to be read, when there is one. */
    next?: () => void;
  } = $props();
  const client = useQueryClient();
  const e = $derived(endpoint.data);
  const order = createQuery(() => labelsQuery(e.id));
  const onRecord = () => ({
    mac: endpoint.data.mac ?? '',
    serial: endpoint.data.serial,
    model: endpoint.data.model,
  });
  const typed = untrack(() =>
    keptHere(`label-${endpoint.data.id}-${Object.values(onRecord()).join('-')}`, onRecord()),
  );
  const label = typed.value;
  const made = madeFrom(label, onRecord, () => endpoint.etag);
  let scan = $state('');
  let said = $state('');
  let problem = $state<Problem | null>(null);
  let kept = $state('');
  let table = $state(false);
  let scanner = $state<HTMLInputElement>();
  const unchanged = $derived(
    label.mac === (e.mac ?? '') && label.serial === e.serial && label.model === e.model,
  );
  const wantsModel = $derived(!!e.model || !!order.data?.some((o) => o.fact === 'MODEL'));

  function take(read: Schemas['LabelView']) {
    const first = read.macs[0];
    // As it came: the field reads it, and asks about doubtful characters.
    if (first) label.mac = first.text;
    if (read.serial) label.serial = read.serial.text;
    if (read.model) label.model = read.model;
    said = saidOf(read);
  }

  async function read(work: () => Promise<Schemas['LabelView']>) {
    try {
      take(await work());
      problem = null;
      scan = '';
    } catch (error) {
      problem = asProblem(error);
    }
  }
  const params = $derived({ path: { id: e.id } });
  const scanned = (event: KeyboardEvent) => {
    if (event.key !== 'Enter' || !scan.trim()) return;
    event.preventDefault();
    void read(() => ok(api.POST('/api/endpoints/{id}/label-text', { params, body: { text: scan } })));
  };
  const pictured = (file?: File) => {
    if (!file) return;
    void read(() =>
      ok(
        api.POST('/api/endpoints/{id}/label-picture', {
          params,
          ...bytes(file),
        }),
      ),
    );
  };

  async function keep(event: SubmitEvent) {
    event.preventDefault();
    let done = '';
    // Taken now: once the label is on record this one no longer counts as missing.
    const goOn = next;
    try {
      await okWithTag(
        api.PATCH('/api/endpoints/{id}', {
          params: { path: { id: e.id }, header: { 'If-Match': made.etag } },
          body: { mac: label.mac, serial: label.serial, model: label.model },
        }),
      );
      problem = null;
      done = 'Kept.';
    } catch (error) {
      problem = asProblem(error);
    }
    if (problem?.status === 0) {
      await outbox.note(e, { what: 'label', label: { ...label }, was: onRecord() });
      problem = null;
      done = 'Kept on this device, and not sent yet.';
    }
    if (done) typed.forget();
    kept = done;
    for (const queryKey of [
      ['site', e.siteId],
      ['endpoint', e.id],
    ])
      await client.invalidateQueries({ queryKey });
    if (!done) return;
    Object.assign(label, onRecord());
    made.choose();
    onkept?.();
    goOn?.();
  }
</script>

<form onsubmit={keep} class="grid gap-x-6 sm:grid-cols-2">
  {#each order.data?.filter((o) => o.before) ?? [] as o (o.fact)}
    <p class="{o.late ? 'text-error' : 'caution'} mb-2 text-sm sm:col-span-2">
      {o.fact === 'MAC' ? 'MAC' : o.fact === 'SERIAL' ? 'Serial' : 'Model'}: {o.where}.
      {o.late
        ? `“${o.before}” is done and hides it: take it from the network's table, or look once more.`
        : `Read it before “${o.before}”; afterwards it is out of reach.`}
    </p>
  {/each}
  <div class="mb-3 flex flex-wrap items-end gap-2 sm:col-span-2">
    <label class="min-w-56 flex-1"
      ><span class="field-label">Scan or paste the label</span><input
        bind:this={scanner}
        class="input w-full font-mono"
        bind:value={scan}
        onkeydown={scanned}
        autocomplete="off"
        spellcheck="false"
        placeholder="A bar code wedge types here and presses Enter"
      /></label
    >
    <label class="btn btn-outline btn-primary"
      ><Camera size={16} aria-hidden="true" />Picture<input
        type="file"
        class="sr-only"
        accept="image/*"
        capture="environment"
        onchange={(event) => (pictured(event.currentTarget.files?.[0]), (event.currentTarget.value = ''))}
      /></label
    >
    <button type="button" class="btn btn-outline btn-primary" onclick={() => (table = true)}
      >From a table</button
    >
    <p class="w-full text-sm" role="status">{said}</p>
  </div>
  <ReadField
    label="MAC"
    bind:value={label.mac}
    read={readMac(e.siteId, e.id)}
    error={problem?.field('mac')}
    hint={e.labelPlace}
  />
  <ReadField
    label="Serial"
    bind:value={label.serial}
    read={readSerial(e.siteId, e.kind, e.id)}
    error={problem?.field('serial')}
  />
  {#if wantsModel}<TextField
      label="Model"
      bind:value={label.model}
      error={problem?.field('model')}
      hint="To the last letter: variants look alike"
      mono
    />{/if}
  <div class="sm:col-span-2">
    <Meanwhile {made} />
    <Trouble
      problem={problem?.errors.some((x) => ['/mac', '/serial', '/model'].includes(x.pointer))
        ? null
        : problem}
    />
    <button class="btn btn-primary {unchanged ? 'btn-outline' : ''}" disabled={unchanged && !!label.mac}
      >Keep {wantsModel ? 'the label' : 'MAC and serial'}</button
    >
    <span role="status" class="ml-3 {kept === 'Kept.' ? 'text-success' : ''}">{kept}</span>
  </div>
</form>
<Dialog bind:open={table} title="From a neighbour table" wide>
  <NeighbourTable endpointId={e.id} choose={(found) => ((label.mac = found), (table = false))} />
</Dialog>
