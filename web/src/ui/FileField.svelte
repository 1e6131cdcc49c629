<script lang="ts">
  let {
    label,
    id,
    accept,
    input = $bindable(),
    chosen,
  }: {
    label: string;
    id: string;
    accept?: string;
    input?: HTMLInputElement;
    chosen: (file: File | null) => void;
  } = $props();
  const look =
    'block w-full max-w-2xl rounded border border-base-300 p-1 text-sm ' +
    'file:mr-3 file:rounded file:border-0 file:bg-base-200 file:px-3 file:py-1.5';
</script>

<label class="field-label" for={id}>{label}</label>
<input
  {id}
  {accept}
  bind:this={input}
  type="file"
  class={look}
  onchange={(e) => chosen(e.currentTarget.files?.[0] ?? null)}
/>
