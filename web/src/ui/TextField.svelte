<script lang="ts">
  let {
    label,
    value = $bindable(''),
    error,
    type = 'text',
    mode,
    list,
    hint,
    required = false,
    mono = false,
    autofocus = false,
    disabled = false,
    onchange,
    autocomplete = 'off',
    wrong = false,
  }: {
    label: string;
    value?: string;
    error?: string;
    type?: 'text' | 'password';
    mode?: 'numeric';
    list?: string[];
    hint?: string;
    required?: boolean;
    mono?: boolean;
    autofocus?: boolean;
    disabled?: boolean;
    onchange?: () => void;
    /** Marked as wrong where the reason stands elsewhere. */
    wrong?: boolean;
    autocomplete?: 'off' | 'username' | 'current-password' | 'new-password';
  } = $props();
  const id = $props.id();
  let input = $state<HTMLInputElement>();
  $effect(() => {
    if (autofocus) input?.focus();
  });
</script>

<div>
  <label class="field-label" for={id}>{label}</label>
  <input
    bind:this={input}
    {id}
    {type}
    {required}
    {disabled}
    {onchange}
    {autocomplete}
    inputmode={mode}
    class="input w-full {mono ? 'font-mono' : ''} {error || wrong ? 'input-error' : ''}"
    bind:value
    list={list ? id + '-list' : undefined}
    aria-invalid={!!error || wrong}
    aria-describedby={error || hint ? id + '-said' : undefined}
  />
  {#if list}
    <datalist id="{id}-list"
      >{#each list as option (option)}<option value={option}></option>{/each}</datalist
    >
  {/if}
  {#if error}<p id="{id}-said" class="mt-1 text-sm text-error">{error}</p>
  {:else if hint}<p id="{id}-said" class="quiet mt-1 text-sm">{hint}</p>{/if}
</div>
