<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { api, asProblem, freshKey, keyAfter, ok, type Problem, type Schemas } from '../../api/client';
  import { kindsQuery, sheetQuery } from '../../api/queries';
  import { untrack } from 'svelte';
  import { draft } from '../../ui/draft.svelte';
  import Figures from '../../ui/Figures.svelte';
  import { kept } from '../../ui/kept.svelte';
  import ReadField from '../../ui/ReadField.svelte';
  import TextField from '../../ui/TextField.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { at, go } from '../../router';
  import { readAddress, readMac, readSerial } from '../../api/readers';
  import { METHODS } from './methods';

  let {
    siteId,
    segment,
    onpropose,
  }: {
    siteId: number;
    segment: Schemas['SegmentView'];
    onpropose: (place: { host: number; label: string } | null) => void;
  } = $props();
  const client = useQueryClient();
  const kinds = createQuery(() => kindsQuery);
  const key = freshKey();
  // What was read off a label is not lost to a look at another page; what is proposed is proposed anew.
  const typed = untrack(() =>
    kept(`new-${siteId}`, { kind: 'counter-payment-terminal', mac: '', serial: '', place: '', outlet: '' }),
  );
  let before = $state(!!(typed.value.mac || typed.value.serial || typed.value.place || typed.value.outlet));
  let kind = $state(typed.value.kind);
  let number = $state<number | undefined>();
  let seriesId = $state<number | undefined>();
  let host = $state(draft.host ?? undefined);
  draft.host = null;
  const sheet = createQuery(() => sheetQuery(siteId));
  const series = $derived(
    (sheet.data?.data.series ?? []).filter(
      (s) => !s.followsId && (s.segmentId === null || s.segmentId === segment.id),
    ),
  );
  const proposal = createQuery(() => ({
    queryKey: ['site', siteId, 'proposal', kind, segment.id, number ?? 0, seriesId ?? -1, host ?? -1],
    queryFn: () =>
      ok(
        api.GET('/api/sites/{siteId}/proposal', {
          params: { path: { siteId }, query: { kind, segmentId: segment.id, number, seriesId, host } },
        }),
      ),
    staleTime: 0,
    placeholderData: (before) => before,
  }));
  const chosenKind = $derived(kinds.data?.find((k) => k.id === kind));
  const f = $state({
    name: '',
    address: '',
    mac: typed.value.mac,
    serial: typed.value.serial,
    place: typed.value.place,
    outlet: typed.value.outlet,
    port: '',
    partner: '',
    partnerAddress: '',
    hostName: '',
    method: 'FIXED' as Schemas['ProposalView']['method'],
    reason: '',
  });
  $effect(() => {
    Object.assign(typed.value, { kind, mac: f.mac, serial: f.serial, place: f.place, outlet: f.outlet });
  });
  const mine = $derived(!!proposal.data && f.address !== (proposal.data.address ?? ''));
  let choosing = $state(false);
  let macRead = $state<string | null>(null);
  let problem = $state<Problem | null>(null);
  let busy = $state(false);

  // The proposal fills the form until something else is typed.
  let filled = { name: '', address: '', partner: '', partnerAddress: '', hostName: '', port: '' };
  $effect(() => {
    const p = proposal.data;
    if (!p) return;
    const fresh = {
      name: p.name,
      address: p.address ?? '',
      partner: p.partnerName,
      partnerAddress: p.partnerAddress ?? '',
      hostName: p.hostName,
      port: p.switchPort,
    };
    f.method = p.method;
    for (const field of ['name', 'address', 'partner', 'partnerAddress', 'hostName', 'port'] as const)
      if (f[field] === filled[field]) f[field] = fresh[field];
    filled = fresh;
  });
  // The tape and the tag show where the proposal goes; an address typed by hand is judged below its field.
  $effect(() => {
    const p = proposal.data;
    const label = f.name.replace(' ' + (chosenKind?.noun ?? ''), '') + ' goes here';
    onpropose(p && p.host !== null && p.address === f.address ? { host: p.host, label } : null);
    if (p)
      draft.tag = {
        ...({
          station: 'PLAN',
          knot: 'OPEN',
          standing: 'Not tied yet',
          tagCode: '',
        } as Schemas['EndpointView']),
        name: f.name,
        kindName: chosenKind?.name ?? '',
        address: f.address || null,
        mask: p.mask,
        servicePort: p.servicePort,
        mac: macRead,
        serial: f.serial,
        place: f.place,
        outlet: f.outlet,
        switchPort: f.port,
        partner: f.partner,
        partnerPort: p.partnerPort,
        hostName: f.hostName,
        methodWords: METHODS[f.method],
      };
  });
  $effect(() => () => {
    draft.tag = null;
    onpropose(null);
  });

  async function add(e: SubmitEvent) {
    e.preventDefault();
    busy = true;
    try {
      const made = await ok(
        api.POST('/api/sites/{siteId}/endpoints', {
          params: { path: { siteId }, header: key },
          body: {
            segmentId: segment.id,
            kind,
            number: proposal.data?.number ?? undefined,
            name: f.name,
            address: f.address,
            mac: f.mac,
            serial: f.serial,
            place: f.place,
            outlet: f.outlet,
            switchPort: f.port,
            partnerName: f.partner,
            partnerAddress: f.partnerAddress,
            seriesId: proposal.data?.seriesId ?? 0,
            hostName: f.hostName,
            method: f.method,
            reason: f.reason,
          },
        }),
      );
      await client.invalidateQueries({ queryKey: ['site', siteId] });
      await go(at(siteId, 'onboard', made.id));
      typed.forget();
    } catch (error) {
      problem = asProblem(error);
      keyAfter(key, problem);
    } finally {
      busy = false;
    }
  }
</script>

<form onsubmit={add} class="mt-3" aria-label="New endpoint">
  <div class="grid gap-x-8 gap-y-4 lg:grid-cols-[1.15fr_1fr]">
    <section class="grid content-start gap-3" aria-label="What it is">
      <h2>New endpoint</h2>
      {#if before}<p class="caution">
          What you typed before is still here.
          <button
            type="button"
            class="link"
            onclick={() => {
              Object.assign(f, { mac: '', serial: '', place: '', outlet: '' });
              before = false;
            }}>Begin anew</button
          >
        </p>{/if}
      <div class="grid grid-cols-[1fr_6rem] gap-4">
        <div>
          <label class="field-label" for="kind">Kind</label>
          <select
            id="kind"
            class="select w-full"
            bind:value={kind}
            onchange={() => ((number = undefined), (seriesId = undefined))}
          >
            {#each kinds.data ?? [] as k (k.id)}<option value={k.id}>{k.name}</option>{/each}
          </select>
        </div>
        {#if proposal.data?.number != null}
          <div>
            <label class="field-label" for="number">Number</label>
            <input
              id="number"
              type="number"
              min="1"
              max="9999"
              class="input w-full font-mono"
              value={number ?? proposal.data?.number ?? ''}
              oninput={(e) => (number = e.currentTarget.valueAsNumber || undefined)}
            />
          </div>
        {/if}
      </div>
      <div class="grid gap-x-4 sm:grid-cols-[1.25fr_1fr]">
        <ReadField
          label="MAC"
          bind:value={f.mac}
          read={readMac(siteId)}
          error={problem?.field('mac')}
          hint="From the label; may wait"
          onreading={(reading) => (macRead = reading?.value ?? null)}
        />
        <ReadField
          label="Serial"
          bind:value={f.serial}
          read={readSerial(siteId, kind)}
          error={problem?.field('serial')}
          hint="From the label; may wait"
        />
      </div>
      <div class="grid gap-x-4 sm:grid-cols-[1.25fr_1fr]">
        <TextField label="Name" bind:value={f.name} error={problem?.field('name')} required />
        <TextField label="Host name" bind:value={f.hostName} error={problem?.field('hostName')} mono />
      </div>
      <div class="grid grid-cols-3 gap-4">
        <TextField
          label="Place"
          bind:value={f.place}
          error={problem?.field('place')}
          list={sheet.data?.data.places.map((p) => p.name)}
        />
        <TextField
          label="Outlet"
          bind:value={f.outlet}
          error={problem?.field('outlet')}
          list={sheet.data?.data.outlets.map((o) => o.name)}
        />
        <TextField
          label="Switch port"
          bind:value={f.port}
          error={problem?.field('switchPort')}
          list={sheet.data?.data.gear.flatMap((g) => g.ports.map((p) => g.name + ' ' + p.number))}
        />
      </div>
      {#if series.length > 1 || seriesId !== undefined}
        <div class="max-w-xs">
          <label class="field-label" for="series">Counted in</label>
          <select
            id="series"
            class="select w-full"
            value={proposal.data?.seriesId ?? 0}
            onchange={(e) => ((number = undefined), (seriesId = Number(e.currentTarget.value)))}
          >
            <option value={0}>no series</option>
            {#each series as s (s.id)}<option value={s.id}>{s.name}</option>{/each}
          </select>
        </div>
      {/if}
    </section>
    <section class="grid content-start gap-3" aria-label="Its address">
      {#if proposal.data?.refused}
        <h2>No address can be had</h2>
        <p>{proposal.data.refused} {proposal.data.leastChange}</p>
      {:else if proposal.data?.address}
        <h2>It goes to <Figures value={proposal.data.address} /></h2>
        <ul class="grid gap-1 text-sm" data-reasons>
          {#each proposal.data.reasons as reason (reason)}<li>{reason}</li>{/each}
        </ul>
        {#if choosing}
          <ReadField
            label="Address"
            bind:value={f.address}
            read={readAddress('ADDRESS', { segmentId: segment.id })}
            error={problem?.field('address')}
            autofocus
          />
          <p class="flex flex-wrap items-center gap-2 text-sm">
            <span class="quiet">Safest others:</span>
            {#each proposal.data.alternatives as other (other.address)}
              <button
                type="button"
                class="btn btn-outline font-mono btn-primary btn-sm"
                onclick={() => (f.address = other.address)}>{other.address}</button
              >
            {/each}
          </p>
          {#if mine}<TextField
              label="Why another one"
              bind:value={f.reason}
              error={problem?.field('reason')}
              hint="Kept with the endpoint; needed for an address in the pool."
            />{/if}
        {:else if problem?.field('address')}<p class="text-sm text-error">{problem.field('address')}</p>{/if}
      {/if}
      <Trouble {problem} />
      <div class="flex flex-wrap gap-3">
        <button class="btn btn-primary" disabled={busy || !proposal.data}>Tie it here <kbd>Enter</kbd></button
        >
        {#if !choosing}<button
            type="button"
            class="btn btn-outline btn-primary"
            onclick={() => (choosing = true)}>Choose another</button
          >{/if}
        <button type="button" class="btn btn-ghost" onclick={() => go(at(siteId, 'plan'))}>Leave it</button>
      </div>
      <div class="mt-1 grid gap-x-4 sm:grid-cols-2">
        <div class="mb-2 sm:col-span-2">
          <label class="field-label" for="method">Who keeps its address</label>
          <select id="method" class="select w-full max-w-xs" bind:value={f.method}>
            {#each Object.entries(METHODS) as [value, words] (value)}<option {value}>{words}</option>{/each}
          </select>
        </div>
        <TextField
          label="Partner"
          bind:value={f.partner}
          error={problem?.field('partnerName')}
          hint="What must reach it"
        />
        {#if f.partner}<ReadField
            label="Its address"
            bind:value={f.partnerAddress}
            read={readAddress('RESOLVER', { segmentId: segment.id })}
            error={problem?.field('partnerAddress')}
          />{/if}
      </div>
    </section>
  </div>
</form>
