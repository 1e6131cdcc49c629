<script lang="ts">
  /** A link that is good once; whoever made it gives it on. */
  let { link, whom = 'them' }: { link: string; whom?: string } = $props();
</script>

<p class="mt-4" role="status">
  Give {whom} this link. It is good once, for two days, and is not shown again:
</p>
<p class="mt-2 rounded bg-base-200 p-3 font-mono text-sm break-all">{link}</p>
