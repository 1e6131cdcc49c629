<script lang="ts">
  import { untrack } from 'svelte';
  import { api, ok, type Schemas } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import TimeField from '../../ui/TimeField.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { dayOf, hourOf, timeOf } from '../../ui/time';
  import { at } from '../../router';

  /** In which hours somebody looks, what they keep clear of, and how the next night is laid. */
  let { siteId, view, mayWork }: { siteId: number; view: Schemas['NightsView']; mayWork: boolean } = $props();
  const next = $derived(view.next);
  const change = useChange(() => [['site', siteId, 'nights']]);
  const problem = $derived(change.problem);
  let changing = $state(false);
  let from = $state(untrack(() => timeOf(view.next.from)));
  let until = $state(untrack(() => timeOf(view.next.until)));
  const path = $derived({ siteId });

  async function watch() {
    const kept = await change.run(() =>
      ok(api.PUT('/api/sites/{siteId}/watch', { params: { path }, body: { from, until } })),
    );
    if (kept) changing = false;
  }
  const end = () => change.run(() => ok(api.DELETE('/api/sites/{siteId}/watch', { params: { path } })));
</script>

<section aria-label="Hours">
  <h2>
    {view.watched
      ? `Every night, ${timeOf(next.from)} to ${timeOf(next.until)}`
      : 'Nobody looks at night yet'}
  </h2>
  {#if view.watched}
    <p class="mt-1">
      The next is the night to {dayOf(next.morning)}: {next.looks === 1
        ? 'one look'
        : `${next.looks} looks`}{next.tooLong.length < next.looks
        ? `, done at about ${hourOf(next.ends)}`
        : ''}.
    </p>
  {:else}
    <p class="mt-1">
      {next.looks === 1 ? 'One look' : `${next.looks} looks`} would be made, within the hours that you choose.
    </p>
  {/if}
  {#if next.tooLong.length}<p class="caution mt-2">
      The free hours are too short for {next.tooLong.slice(0, 3).join(', ')}{next.tooLong.length > 3
        ? ` and ${next.tooLong.length - 3} more`
        : ''}. Choose longer ones.
    </p>{/if}
  {#if next.clear.length}
    <p class="mt-2 text-sm font-semibold">Kept clear</p>
    <ul class="text-sm">
      {#each next.clear.slice(0, 8) as c (c.from + c.what)}<li class="quiet">
          <span class="font-mono">{hourOf(c.from)}–{hourOf(c.until)}</span>
          {c.what}
        </li>{/each}
    </ul>
    {#if next.clear.length > 8}<p class="quiet text-sm">and {next.clear.length - 8} more</p>{/if}
  {/if}
  {#if next.unknown.length}<p class="quiet mt-2 text-sm">
      {next.unknown.slice(0, 3).join(', ')}{next.unknown.length > 3
        ? ` and ${next.unknown.length - 3} more`
        : ''}
      {next.unknown.length === 1 ? 'restarts' : 'restart'} every night at an hour that is not on record, and may
      be taken for silent. <a class="link" href={at(siteId, 'onboard', 'night')}>Put it in</a>
    </p>{/if}
  {#each next.hints.slice(0, 2) as hint (hint)}<p class="quiet mt-2 text-sm [overflow-wrap:anywhere]">
      {hint}
    </p>{/each}
  {#if mayWork}
    {#if changing || !view.watched}
      <form
        class="mt-3 grid max-w-sm grid-cols-2 items-start gap-3"
        onsubmit={(ev) => {
          ev.preventDefault();
          void watch();
        }}
      >
        <TimeField label="From" form="TIME" bind:value={from} error={problem?.field('from')} required />
        <TimeField label="Until" form="TIME" bind:value={until} error={problem?.field('until')} required />
        <div class="col-span-2 flex flex-wrap gap-3">
          <button class="btn btn-primary btn-sm" disabled={change.busy}
            >{view.watched ? 'Keep these hours' : 'Look every night'}</button
          >
          {#if changing}<button type="button" class="btn btn-ghost btn-sm" onclick={() => (changing = false)}
              >Leave it</button
            >{/if}
        </div>
      </form>
    {:else}
      <p class="mt-3 flex flex-wrap gap-3">
        <button class="btn btn-outline btn-sm" onclick={() => (changing = true)}>Other hours</button>
        <button class="btn btn-ghost btn-sm" onclick={end} disabled={change.busy}
          >No longer every night</button
        >
      </p>
    {/if}
    <Trouble problem={problem?.field('from') || problem?.field('until') ? null : problem} />
  {/if}
</section>
