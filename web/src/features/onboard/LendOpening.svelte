<script lang="ts">
  import TextField from '../../ui/TextField.svelte';
  import TimeField from '../../ui/TimeField.svelte';
  import { DANGERS, type Danger } from '../../ui/dangers';

  /** Who closes an opening, and by which day; one that was found is named first. */
  let {
    named = false,
    keep,
  }: {
    named?: boolean;
    keep: (owner: string, ends: string, title: string, danger: Danger) => Promise<boolean>;
  } = $props();
  const id = $props.id();
  let title = $state('');
  let danger = $state<Danger>('OTHER');
  let owner = $state('');
  let ends = $state('');

  async function send(event: SubmitEvent) {
    event.preventDefault();
    if (await keep(owner, ends, title, danger)) title = owner = ends = '';
  }
</script>

<form class="mt-2 grid max-w-md gap-x-4 gap-y-2 sm:grid-cols-2" onsubmit={send}>
  {#if named}<div class="sm:col-span-2">
      <TextField label="What stands open" bind:value={title} required />
    </div>
    <div class="sm:col-span-2">
      <label class="field-label" for="{id}-danger">What it is</label>
      <select id="{id}-danger" class="select w-full" bind:value={danger}>
        {#each Object.entries(DANGERS) as [value, words] (value)}<option {value}>{words}</option>{/each}
      </select>
    </div>{/if}
  <TextField label="Who closes it" bind:value={owner} required />
  <TimeField label="By which day" form="DAY" bind:value={ends} required />
  <button class="btn w-fit btn-outline btn-primary btn-sm">{named ? 'Note it' : 'Keep it so'}</button>
</form>
