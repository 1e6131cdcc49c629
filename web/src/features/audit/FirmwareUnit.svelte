<script lang="ts">
  import { api, ok, type Schemas } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import TextField from '../../ui/TextField.svelte';
  import TimeField from '../../ui/TimeField.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { dayOf } from '../../ui/time';
  import { at } from '../../router';

  /** The firmware that one unit showed, with its day; what it shows now is keyed in here. */
  let {
    siteId,
    unit: u,
    mayWork,
  }: { siteId: number; unit: Schemas['FirmwareUnitView']; mayWork: boolean } = $props();
  const change = useChange(() => [['site', siteId, 'firmware']]);
  let open = $state(false);
  let version = $state('');
  let day = $state('');
  const wrong = $derived(change.problem);

  async function keep(ev: SubmitEvent) {
    ev.preventDefault();
    const params = { path: { id: u.endpointId } };
    if (
      await change.run(() => ok(api.POST('/api/endpoints/{id}/firmware', { params, body: { version, day } })))
    )
      open = false;
  }
</script>

<li class="border-b border-base-300 py-2" data-unit={u.endpointId}>
  <div class="flex flex-wrap items-center gap-x-4">
    <a class="min-w-56 link font-semibold" href={at(siteId, 'plan', u.endpointId)}>{u.name}</a>
    <span class="flex-1"
      >{#if u.version && u.readOn}<span class="font-mono">{u.version}</span>, read {dayOf(
          u.readOn,
        )}{:else}<span class="quiet">not read yet</span>{/if}</span
    >
    {#if mayWork}<button
        class="btn btn-ghost btn-sm"
        aria-expanded={open}
        onclick={() => ((open = !open), change.clear())}>Key in what it shows</button
      >{/if}
  </div>
  {#if open}
    <form class="mt-1 mb-2 grid max-w-2xl gap-3 sm:grid-cols-[1fr_1fr_auto] sm:items-start" onsubmit={keep}>
      <TextField label="Version" bind:value={version} error={wrong?.field('version')} autofocus required />
      <TimeField label="Read on (blank for today)" form="DAY" bind:value={day} error={wrong?.field('day')} />
      <button class="btn mt-7 btn-primary" disabled={change.busy}>Keep</button>
      {#if wrong && !wrong.field('version') && !wrong.field('day')}<Trouble problem={wrong} />{/if}
    </form>
  {/if}
</li>
