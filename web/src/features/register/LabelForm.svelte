<script lang="ts">
  import { useQueryClient } from '@tanstack/svelte-query';
  import { untrack } from 'svelte';
  import { api, asProblem, okWithTag, type Problem, type Schemas } from '../../api/client';
  import ReadField from '../../ui/ReadField.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { readMac, readSerial } from '../address/readers';

  let {
    endpoint,
    onkept,
  }: { endpoint: { data: Schemas['EndpointView']; etag: string }; onkept?: () => void } = $props();
  const client = useQueryClient();
  const e = $derived(endpoint.data);
  let mac = $state(untrack(() => endpoint.data.mac ?? ''));
  let serial = $state(untrack(() => endpoint.data.serial));
  let problem = $state<Problem | null>(null);
  let kept = $state(false);
  const unchanged = $derived(mac === (e.mac ?? '') && serial === e.serial);

  async function keep(event: SubmitEvent) {
    event.preventDefault();
    try {
      await okWithTag(
        api.PATCH('/api/endpoints/{id}', {
          params: { path: { id: e.id }, header: { 'If-Match': endpoint.etag } },
          body: { mac, serial },
        }),
      );
      problem = null;
      kept = true;
      onkept?.();
    } catch (error) {
      problem = asProblem(error);
    }
    await client.invalidateQueries({ queryKey: ['site', e.siteId] });
    await client.invalidateQueries({ queryKey: ['endpoint', e.id] });
  }
</script>

<form onsubmit={keep} class="grid gap-x-6 sm:grid-cols-2">
  <ReadField
    label="MAC"
    bind:value={mac}
    read={readMac(e.siteId, e.id)}
    error={problem?.field('mac')}
    hint={e.labelPlace}
  />
  <ReadField
    label="Serial"
    bind:value={serial}
    read={readSerial(e.siteId, e.kind, e.id)}
    error={problem?.field('serial')}
  />
  <div class="sm:col-span-2">
    <Trouble problem={problem?.errors.length ? null : problem} />
    <button class="btn btn-primary {unchanged ? 'btn-outline' : ''}" disabled={unchanged && !!mac}
      >Keep MAC and serial</button
    >
    <span role="status" class="ml-3 text-success">{kept ? 'Kept.' : ''}</span>
  </div>
</form>
