<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, ok, type Schemas } from '../../api/client';

  /** How the site writes days and times, each way shown by an example. */
  let { value = $bindable() }: { value: Schemas['DateStyleView']['style'] } = $props();
  const styles = createQuery(() => ({
    queryKey: ['date-styles'],
    queryFn: () => ok(api.GET('/api/date-styles')),
    staleTime: Infinity,
  }));
  const id = $props.id();
</script>

<div>
  <label class="field-label" for={id}>Days and times are written</label>
  <select {id} class="select w-full" bind:value>
    {#each styles.data ?? [] as s (s.style)}<option value={s.style}>{s.example}</option>{/each}
  </select>
</div>
