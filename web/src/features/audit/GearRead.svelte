<script lang="ts">
  import { api, ok, type Schemas } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import TextField from '../../ui/TextField.svelte';

  /** How a piece of gear lets itself be read; the words are asked for each time, and kept nowhere. */
  let { siteId, gear, done }: { siteId: number; gear: Schemas['GearToldView']; done: () => void } = $props();
  type Request = Schemas['GearReadRequest'];
  const initial = (): Request => ({
    address: gear.address,
    version: 'V2C',
    name: '',
    auth: 'SHA',
    authKey: '',
    privacy: 'AES',
    privacyKey: '',
  });
  const f = $state(initial());
  const change = useChange(() => [['site', siteId]]);
  const problem = $derived(change.problem);
  const placed = $derived(problem?.field('address'));

  async function read() {
    const proves = f.version === 'V3' && f.auth !== 'NONE';
    const hides = proves && f.privacy !== 'NONE';
    const body: Request = {
      ...f,
      auth: proves ? f.auth : 'NONE',
      authKey: proves ? f.authKey : '',
      privacy: hides ? f.privacy : 'NONE',
      privacyKey: hides ? f.privacyKey : '',
    };
    const path = { gearId: gear.id };
    const kept = await change.run(() =>
      ok(api.POST('/api/gear/{gearId}/reading', { params: { path }, body })),
    );
    if (kept) done();
  }
</script>

{#snippet choice(label: string, key: 'version' | 'auth' | 'privacy', options: Record<string, string>)}
  <div>
    <label class="field-label" for="{key}-{gear.id}">{label}</label>
    <select id="{key}-{gear.id}" class="select w-full" bind:value={f[key]}>
      {#each Object.entries(options) as [value, words] (value)}<option {value}>{words}</option>{/each}
    </select>
  </div>
{/snippet}

<form
  class="mt-3 max-w-3xl"
  aria-label="Read {gear.name}"
  onsubmit={(ev) => {
    ev.preventDefault();
    void read();
  }}
>
  <div class="grid items-start gap-3 sm:grid-cols-3">
    <TextField label="Its own address" mono required autofocus bind:value={f.address} error={placed} />
    {@render choice('It speaks', 'version', { V2C: 'SNMP v2c', V3: 'SNMP v3' })}
    {#if f.version === 'V2C'}
      <TextField label="Community" type="password" required bind:value={f.name} />
    {:else}
      <TextField label="User" required bind:value={f.name} />
      {@render choice('She proves herself by', 'auth', {
        SHA: 'SHA-1',
        SHA256: 'SHA-256',
        MD5: 'MD5',
        NONE: 'nothing',
      })}
      {#if f.auth !== 'NONE'}
        <TextField label="Password" type="password" required bind:value={f.authKey} />
        {@render choice('What is said is hidden by', 'privacy', { AES: 'AES', DES: 'DES', NONE: 'nothing' })}
        {#if f.privacy !== 'NONE'}
          <TextField label="Second password" type="password" required bind:value={f.privacyKey} />
        {/if}
      {/if}
    {/if}
  </div>
  <p class="quiet mt-2 text-sm">
    {f.version === 'V2C'
      ? 'A community goes over the network as it is typed. Use one that can only read.'
      : 'Use a user that can only read.'} It is asked for each time, and kept nowhere.
  </p>
  {#if problem && !placed}<p class="mt-2 font-medium text-error" role="alert">{problem.message}</p>{/if}
  <button class="btn mt-3 btn-primary" disabled={change.busy}
    >{change.busy ? 'Reading, up to a minute…' : 'Read it now'}</button
  >
</form>
