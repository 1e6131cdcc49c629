<script lang="ts">
  import { api, ok, okWithTag, type Schemas } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import Dialog from '../../ui/Dialog.svelte';
  import { madeFrom } from '../../ui/madeFrom.svelte';
  import Meanwhile from '../../ui/Meanwhile.svelte';
  import ReadField from '../../ui/ReadField.svelte';
  import TextField from '../../ui/TextField.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { at, go } from '../../router';
  import { readAddress } from '../../api/readers';
  import Learned from './Learned.svelte';
  import { METHODS } from './methods';

  let { endpoint, mayWork }: { endpoint: { data: Schemas['EndpointView']; etag: string }; mayWork: boolean } =
    $props();
  const e = $derived(endpoint.data);
  let changing = $state(false);
  let retiring = $state(false);
  let learning = $state(false);
  const change = useChange(
    () => [
      ['site', e.siteId],
      ['endpoint', e.id],
    ],
    () => ['endpoint', e.id],
  );
  const problem = $derived(change.problem);
  let reason = $state('');
  /** What of it can be changed here, as it stands on record. */
  const onRecord = () => ({
    name: e.name,
    hostName: e.hostName,
    address: e.address ?? '',
    method: e.method,
    place: e.place,
    outlet: e.outlet,
    switchPort: e.switchPort,
    partnerName: e.partner,
    partnerAddress: e.partnerAddress ?? '',
  });
  const f = $state({ ...onRecord(), reason: '' });
  const made = madeFrom(f, onRecord, () => endpoint.etag);
  const header = $derived({ 'If-Match': endpoint.etag });
  const next = $derived(
    (
      {
        PLAN: 'plan',
        REGISTER: 'register',
        ONBOARD: 'onboard',
        CONFIRM: 'confirm',
        HANDOVER: 'handover',
        DONE: 'confirm',
      } as const
    )[e.station],
  );

  function begin() {
    Object.assign(f, onRecord(), { reason: '' });
    made.choose();
    change.clear();
    changing = true;
  }

  async function save(event: SubmitEvent) {
    event.preventDefault();
    await change.run(async () => {
      await okWithTag(
        api.PATCH('/api/endpoints/{id}', {
          params: { path: { id: e.id }, header: { 'If-Match': made.etag } },
          body: { ...f },
        }),
      );
      changing = false;
    });
  }

  async function retire() {
    await change.run(async () => {
      await ok(
        api.POST('/api/endpoints/{id}/retirement', {
          params: { path: { id: e.id }, header },
          body: { reason },
        }),
      );
      retiring = false;
      await go(at(e.siteId, 'plan'));
    });
  }
</script>

<h2>{e.name}</h2>
<p class="quiet mt-1">{e.standing}.</p>
{#if e.oneSlipFrom.length}
  <p class="caution mt-3">
    One slip of a finger away from {e.oneSlipFrom.join(', ')}: read the last group aloud.
  </p>
{/if}
{#if changing}
  <form onsubmit={save} class="mt-4 grid gap-3 sm:grid-cols-2">
    <TextField label="Name" bind:value={f.name} error={problem?.field('name')} required />
    <ReadField
      label="Address"
      bind:value={f.address}
      read={readAddress('ADDRESS', { endpointId: e.id })}
      error={problem?.field('address')}
    />
    <TextField label="Host name" bind:value={f.hostName} error={problem?.field('hostName')} mono />
    <div>
      <label class="field-label" for="change-method">Who keeps its address</label>
      <select id="change-method" class="select w-full" bind:value={f.method}>
        {#each Object.entries(METHODS) as [value, words] (value)}<option {value}>{words}</option>{/each}
      </select>
    </div>
    <TextField label="Place" bind:value={f.place} error={problem?.field('place')} />
    <TextField label="Outlet" bind:value={f.outlet} error={problem?.field('outlet')} />
    <TextField label="Switch port" bind:value={f.switchPort} error={problem?.field('switchPort')} />
    <TextField label="Partner" bind:value={f.partnerName} error={problem?.field('partnerName')} />
    {#if f.partnerName}<ReadField
        label="Partner's address"
        bind:value={f.partnerAddress}
        read={readAddress('RESOLVER', { segmentId: e.segmentId })}
        error={problem?.field('partnerAddress')}
      />{/if}
    <TextField label="Why" bind:value={f.reason} error={problem?.field('reason')} hint="Kept in the log" />
    <div class="sm:col-span-2">
      {#if f.address !== (e.address ?? '') && e.station !== 'PLAN' && e.station !== 'REGISTER'}
        <p class="caution mb-3">
          Another address undoes the entry, the read-back, the restart and the proof.
        </p>
      {/if}
      <Meanwhile {made} />
      <Trouble {problem} />
      <button class="btn btn-primary">Keep the change</button>
      <button type="button" class="btn btn-ghost" onclick={() => (changing = false)}>Leave it</button>
    </div>
  </form>
{:else}
  <div class="mt-4 flex flex-wrap gap-2">
    {#if next !== 'plan'}<a class="btn btn-primary" href={at(e.siteId, next, e.id)}
        >{e.station === 'DONE' ? 'See the proof' : 'Go on with it'}</a
      >{/if}
    {#if mayWork}
      <button class="btn btn-outline btn-primary" onclick={begin}>Change</button>
      {#if e.method === 'LEARNED' && e.address}<button
          class="btn btn-outline btn-primary"
          onclick={() => (learning = true)}>What did it learn?</button
        >{/if}
      <button class="btn btn-outline btn-error" onclick={() => (change.clear(), (retiring = true))}
        >Retire</button
      >
    {/if}
  </div>
{/if}
<Dialog bind:open={learning} title="What {e.name} learned" wide><Learned endpointId={e.id} /></Dialog>
<Dialog bind:open={retiring} title="Retire {e.name}?">
  <p>
    Its address {e.address ?? ''}, its MAC, number and port become free for others. Its log stays. This cannot
    be undone.
  </p>
  <div class="mt-4">
    <TextField label="Why" bind:value={reason} error={problem?.field('reason')} required />
  </div>
  <Trouble problem={problem?.errors.length ? null : problem} />
  <button class="btn mt-4 btn-error" onclick={retire}>Retire it and free its address</button>
</Dialog>
