<script lang="ts">
  /** How far something is, as a cable that is drawn; the words beside it say the same. */
  let { value, of, label }: { value: number; of: number; label: string } = $props();
</script>

<p class="font-semibold" role="status">{label}</p>
<progress class="progress mt-2 h-2 w-full progress-secondary" max={of} {value} aria-label={label}></progress>
