<script lang="ts">
  import type { Problem } from '../../api/client';
  import TextField from '../../ui/TextField.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { nobodyYet, type Person } from './visitForm';

  /** Who comes, what they may do besides, and when they are there. */
  let { people = $bindable(), problem }: { people: Person[]; problem: Problem | null } = $props();
</script>

<fieldset class="grid gap-2">
  <legend class="font-bold">Who comes</legend>
  {#each people as p, i (i)}
    <div class="grid items-start gap-2 sm:grid-cols-[1fr_1fr_6rem_6rem_auto]">
      <TextField label="Name" bind:value={p.name} error={problem?.field(`people/${i}/name`)} required />
      <TextField
        label="May also do"
        bind:value={p.skills}
        error={problem?.field(`people/${i}/skills`)}
        list={['qualified electrician', 'licensed fitter']}
      />
      <TextField label="From" mono bind:value={p.from} error={problem?.field(`people/${i}/from`)} />
      <TextField label="Until" mono bind:value={p.until} error={problem?.field(`people/${i}/until`)} />
      {#if people.length > 1}<button
          type="button"
          class="btn mt-6 btn-ghost btn-sm"
          aria-label="{p.name || 'This person'} does not come"
          onclick={() => (people = people.filter((o) => o !== p))}>Leave out</button
        >{/if}
    </div>
  {/each}
  <Trouble problem={problem?.field('people') ? problem : null} />
  <button
    type="button"
    class="link justify-self-start text-sm text-primary"
    onclick={() => people.push(nobodyYet())}>One more person</button
  >
</fieldset>
