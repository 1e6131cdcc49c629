<script lang="ts">
  import type { Problem } from '../../api/client';
  import TextField from '../../ui/TextField.svelte';
  import type { PlaceHours } from './visitForm';

  /** Places at which nobody works but at some hours. */
  let {
    places = $bindable(),
    names,
    problem,
  }: { places: PlaceHours[]; names: string[]; problem: Problem | null } = $props();
</script>

<fieldset class="grid gap-2">
  <legend class="font-bold">Places that are free only at some hours</legend>
  {#each places as p, i (i)}
    <div class="grid items-start gap-2 sm:grid-cols-[1fr_6rem_6rem_auto]">
      <TextField
        label="Place"
        bind:value={p.place}
        list={names}
        error={problem?.field(`places/${i}/place`)}
        required
      />
      <TextField
        label="Free from"
        mono
        bind:value={p.from}
        error={problem?.field(`places/${i}/from`)}
        required
      />
      <TextField
        label="Until"
        mono
        bind:value={p.until}
        error={problem?.field(`places/${i}/until`)}
        required
      />
      <button
        type="button"
        class="btn mt-6 btn-ghost btn-sm"
        onclick={() => (places = places.filter((o) => o !== p))}>Leave out</button
      >
    </div>
  {/each}
  <button
    type="button"
    class="link justify-self-start text-sm text-primary"
    onclick={() => places.push({ place: '', from: '', until: '' })}>Name a place</button
  >
</fieldset>
