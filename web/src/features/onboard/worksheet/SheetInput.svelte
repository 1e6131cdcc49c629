<script lang="ts">
  import type { Schemas } from '../../../api/client';
  import TextField from '../../../ui/TextField.svelte';

  /** One thing that a worksheet asks for. */
  let {
    field,
    value = $bindable(),
    error,
    counted,
    wrong = false,
  }: {
    field: Schemas['SheetField'];
    value: string;
    error?: string;
    counted?: string;
    wrong?: boolean;
  } = $props();
  const id = $props.id();
  const usual = $derived(field.usual && field.form === 'FIGURE' ? `Usually ${field.usual}` : undefined);
</script>

{#if counted !== undefined}
  <div>
    <span class="field-label">{field.label}</span>
    <p class="text-lg">
      <span class="font-mono">{[counted, field.unit].filter(Boolean).join(' ')}</span>, as it was counted
    </p>
  </div>
{:else if field.form === 'PICK'}
  <div>
    <label class="field-label" for={id}>{field.label}</label>
    <select
      {id}
      class="select w-full {error || wrong ? 'select-error' : ''}"
      bind:value={() => value || field.usual, (v) => (value = v)}
    >
      {#each field.picks as pick (pick.value)}<option value={pick.value}>{pick.label}</option>{/each}
    </select>
    {#if error}<p class="mt-1 text-sm text-error">{error}</p>{/if}
  </div>
{:else if field.form === 'LINES'}
  <div class="@md:col-span-2">
    <label class="field-label" for={id}>{field.label}</label>
    <textarea {id} class="textarea h-24 w-full font-mono text-[13px]" bind:value></textarea>
    {#if error}<p class="mt-1 text-sm text-error">{error}</p>
    {:else if field.hint}<p class="quiet mt-1 text-sm">{field.hint}</p>{/if}
  </div>
{:else}
  <TextField
    label={field.unit ? `${field.label} (${field.unit})` : field.label}
    bind:value
    {error}
    mono={field.form === 'FIGURE'}
    {wrong}
    hint={field.hint || usual}
  />
{/if}
