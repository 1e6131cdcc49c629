<script lang="ts">
  import CalendarDays from '@lucide/svelte/icons/calendar-days';
  import { api, ok } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import Trouble from '../../ui/Trouble.svelte';

  /** The reminders for a calendar: once as a file, or as a feed whose address is shown once. */
  let { siteId }: { siteId: number } = $props();
  let address = $state('');
  let ended = $state(false);
  const change = useChange();
  const problem = $derived(change.problem);

  async function run(work: () => Promise<void>) {
    await change.run(async () => {
      await work();
    });
  }
  const params = $derived({ path: { siteId } });
  const begin = () =>
    run(async () => {
      address = location.origin + (await ok(api.POST('/api/sites/{siteId}/calendar-feeds', { params }))).path;
      ended = false;
    });
  const end = () =>
    run(async () => {
      await ok(api.DELETE('/api/sites/{siteId}/calendar-feeds', { params }));
      address = '';
      ended = true;
    });
</script>

<section aria-label="In your calendar">
  <h2>In your calendar</h2>
  <p class="quiet mt-1 text-sm">
    The file holds what is due now. A feed keeps itself up to date; whoever has its address can read what is
    due, so treat it as a key.
  </p>
  <div class="mt-2 flex flex-wrap gap-2">
    <a class="btn btn-outline btn-primary btn-sm" href="/api/sites/{siteId}/reminders.ics" download
      ><CalendarDays size={16} aria-hidden="true" />iCalendar file</a
    >
    <button class="btn btn-outline btn-primary btn-sm" disabled={change.busy} onclick={begin}
      >Make a feed</button
    >
    <button class="btn btn-ghost btn-sm" disabled={change.busy} onclick={end}>End my feeds</button>
  </div>
  <div role="status">
    {#if address}<p class="mt-2 text-sm">Shown this once. Give it to your calendar:</p>
      <p class="mt-1 font-mono text-[13px] break-all" translate="no">{address}</p>
    {:else if ended}<p class="mt-2 text-sm">Your feeds have ended; their addresses lead nowhere now.</p>{/if}
  </div>
  <Trouble {problem} />
</section>
