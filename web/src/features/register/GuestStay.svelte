<script lang="ts">
  import { api, asProblem, ok, type Problem, type Schemas } from '../../api/client';
  import { serverClock } from '../../ui/now.svelte';
  import { when } from '../../ui/time';
  import Trouble from '../../ui/Trouble.svelte';

  /** How many passes a guest needs for a stay, and when somebody must renew them. Nothing is kept. */
  let { siteId, zone }: { siteId: number; zone: string } = $props();
  const f = $state({ from: '', until: '', hours: '24', opens: '08:00', shuts: '18:00' });
  let passes = $state<Schemas['GuestPasses'] | null>(null);
  let problem = $state<Problem | null>(null);

  async function count(event: SubmitEvent) {
    event.preventDefault();
    try {
      passes = await ok(
        api.POST('/api/sites/{siteId}/guest-passes', {
          params: { path: { siteId } },
          body: { ...f, hours: Number(f.hours) || 0 },
        }),
      );
      problem = null;
    } catch (error) {
      passes = null;
      problem = asProblem(error);
    }
  }
</script>

<section aria-label="A guest's stay">
  <h2>A guest's stay</h2>
  <form class="mt-1 grid grid-cols-2 gap-3 text-sm" onsubmit={count}>
    <label>From<input type="datetime-local" class="input mt-0.5 w-full" bind:value={f.from} required /></label
    >
    <label
      >Until<input type="datetime-local" class="input mt-0.5 w-full" bind:value={f.until} required /></label
    >
    <label
      >A pass lasts, hours<input
        class="input mt-0.5 w-full font-mono"
        inputmode="numeric"
        bind:value={f.hours}
      /></label
    >
    <div class="grid grid-cols-2 gap-2">
      <label>Desk opens<input type="time" class="input mt-0.5 w-full px-1.5" bind:value={f.opens} /></label>
      <label>and shuts<input type="time" class="input mt-0.5 w-full px-1.5" bind:value={f.shuts} /></label>
    </div>
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
            Renew {when(d.at, zone, serverClock.millis)}
            {#if !d.inHours}<span class="text-error">nobody is at the desk</span>{/if}
          </li>{/each}
      </ul>
    {/if}
  </div>
</section>
