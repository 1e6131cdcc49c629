<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { api, freshKey, ok, type Schemas } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import { kindsQuery, sheetQuery } from '../../api/queries';
  import { untrack } from 'svelte';
  import { draft } from '../../ui/draft.svelte';
  import { kept } from '../../ui/kept.svelte';
  import { at, go } from '../../router';
  import ItsAddress from './ItsAddress.svelte';
  import { METHODS } from './methods';
  import WhatItIs from './WhatItIs.svelte';

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
  const stranger = draft.stranger?.mac;
  draft.stranger = null;
  let before = $state(
    !!((typed.value.mac && !stranger) || typed.value.serial || typed.value.place || typed.value.outlet),
  );
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
  let f = $state({
    name: '',
    address: '',
    mac: stranger ?? typed.value.mac,
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
  let macRead = $state<string | null>(null);
  const change = useChange();
  const problem = $derived(change.problem);

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
          status: 'PENDING',
          standing: 'Not saved yet',
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
    await change.run(async () => {
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
    }, key);
  }
</script>

<form onsubmit={add} class="mt-3" aria-label="New endpoint">
  <div class="grid gap-x-8 gap-y-4 lg:grid-cols-[1.15fr_1fr]">
    <WhatItIs
      {siteId}
      bind:f
      bind:kind
      bind:number
      bind:seriesId
      {before}
      {series}
      sheet={sheet.data?.data}
      proposal={proposal.data}
      {problem}
      read={(mac) => (macRead = mac)}
      anew={() => {
        Object.assign(f, { mac: '', serial: '', place: '', outlet: '' });
        before = false;
      }}
    />
    <ItsAddress {siteId} bind:f {segment} proposal={proposal.data} {problem} busy={change.busy} />
  </div>
</form>
