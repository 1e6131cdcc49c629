<script lang="ts">
  let { what = 'Fetching…' }: { what?: string } = $props();
</script>

<p class="quiet flex items-center gap-3 py-6" role="status">
  <span class="loading loading-sm loading-dots" aria-hidden="true"></span>
  {what}
</p>
