<script lang="ts">
  import TextField from '../../ui/TextField.svelte';

  let {
    value = $bindable(''),
    error,
    label = 'Password',
    then = '',
  }: { value?: string; error?: string; label?: string; then?: string } = $props();
</script>

<TextField
  {label}
  type="password"
  bind:value
  {error}
  hint="10 to 128 characters; a short sentence is easiest to keep.{then}"
  required
  autocomplete="new-password"
/>
