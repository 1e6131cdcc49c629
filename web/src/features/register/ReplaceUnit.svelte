<script lang="ts">
  import { api, freshKey, ok, type Schemas } from '../../api/client';
  import ReadField from '../../ui/ReadField.svelte';
  import TextField from '../../ui/TextField.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { at, go } from '../../router';
  import { readMac, readSerial } from '../../api/readers';
  import { registerWork } from './acts.svelte';

  let { endpoint, done }: { endpoint: { data: Schemas['EndpointView']; etag: string }; done: () => void } =
    $props();
  const e = $derived(endpoint.data);
  const work = registerWork(
    () => e.siteId,
    () => ['endpoint', e.id],
  );
  const key = freshKey();
  const f = $state({ mac: '', serial: '', model: '', reason: '' });

  async function begin(event: SubmitEvent) {
    event.preventDefault();
    const begun = await work.run(() =>
      ok(
        api.POST('/api/endpoints/{id}/swaps', {
          params: { path: { id: e.id }, header: { ...key, 'If-Match': endpoint.etag } },
          body: f,
        }),
      ),
    );
    if (!begun) return;
    done();
    await go(at(e.siteId, 'register', 'swaps'));
  }
</script>

<form class="grid gap-x-6 gap-y-2 sm:grid-cols-2" onsubmit={begin}>
  <p class="sm:col-span-2">
    Out goes the unit with <span class="font-mono">{e.mac ?? 'no MAC'}</span>, serial
    <span class="font-mono">{e.serial || 'none'}</span>. Address, name, place and number stay. Read the label
    of the new one:
  </p>
  <ReadField
    label="New MAC"
    bind:value={f.mac}
    read={readMac(e.siteId, e.id)}
    error={work.problem?.field('mac')}
  />
  <ReadField
    label="New serial"
    bind:value={f.serial}
    read={readSerial(e.siteId, e.kind, e.id)}
    error={work.problem?.field('serial')}
  />
  <TextField
    label="New model"
    bind:value={f.model}
    error={work.problem?.field('model')}
    hint={e.model ? 'Empty when it is ' + e.model + ' again' : ''}
    mono
  />
  <TextField label="Why" bind:value={f.reason} error={work.problem?.field('reason')} hint="Kept in the log" />
  <div class="sm:col-span-2">
    <p class="caution mb-3">
      Its runbook begins anew and its proof is lost: a new unit knows nothing. The sheet says where the old
      one goes out and the new one in.
    </p>
    <Trouble
      problem={work.problem?.errors.some((x) => ['/mac', '/serial', '/model', '/reason'].includes(x.pointer))
        ? null
        : work.problem}
    />
    <button class="btn btn-primary" disabled={work.busy}>Begin the swap</button>
  </div>
</form>
