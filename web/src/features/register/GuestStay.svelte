<script lang="ts">
  import { api, ok, type Schemas } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import { serverClock } from '../../ui/now.svelte';
  import { when } from '../../ui/time';
  import TextField from '../../ui/TextField.svelte';
  import TimeField from '../../ui/TimeField.svelte';
  import Trouble from '../../ui/Trouble.svelte';

  /** How many passes a guest needs for a stay, and when somebody must renew them. Nothing is kept. */
  let { siteId }: { siteId: number } = $props();
  const f = $state({ from: '', until: '', hours: '24', opens: '08:00', shuts: '18:00' });
  let passes = $state<Schemas['GuestPasses'] | null>(null);
  const change = useChange();
  const problem = $derived(change.problem);

  async function count(event: SubmitEvent) {
    event.preventDefault();
    passes = null;
    await change.run(async () => {
      passes = await ok(
        api.POST('/api/sites/{siteId}/guest-passes', {
          params: { path: { siteId } },
          body: { ...f, hours: Number(f.hours) || 0 },
        }),
      );
    });
  }
</script>

<section aria-label="A guest's stay">
  <h2>A guest's stay</h2>
  <form class="mt-1 grid grid-cols-2 gap-3 text-sm" onsubmit={count}>
    <TimeField label="From" form="MOMENT" bind:value={f.from} error={problem?.field('from')} required />
    <TimeField label="Until" form="MOMENT" bind:value={f.until} error={problem?.field('until')} required />
    <TimeField label="Desk opens" form="TIME" bind:value={f.opens} error={problem?.field('opens')} />
    <TimeField label="and shuts" form="TIME" bind:value={f.shuts} error={problem?.field('shuts')} />
    <TextField
      label="A pass lasts, hours"
      mode="numeric"
      mono
      bind:value={f.hours}
      error={problem?.field('hours')}
    />
    <div class="col-span-2"><button class="btn btn-outline btn-primary btn-sm">Count the passes</button></div>
  </form>
  <Trouble {problem} />
  <div role="status">
    {#if passes}
      <p class="mt-2">
        {passes.registrations === 1 ? 'One pass is enough.' : passes.registrations + ' passes.'}
        {passes.advice}
      </p>
      <ul class="mt-1 text-sm">
        {#each passes.dues as d (d.at)}<li>
            Renew {when(d.at, serverClock.millis)}
            {#if !d.inHours}<span class="text-error">nobody is at the desk</span>{/if}
          </li>{/each}
      </ul>
    {/if}
  </div>
</section>
