<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { api, asProblem, ok, type Schemas } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import { nightQuery } from '../../api/queries';
  import Loading from '../../ui/Loading.svelte';
  import TextField from '../../ui/TextField.svelte';
  import { timeOf } from '../../ui/time';
  import TimeField from '../../ui/TimeField.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { at } from '../../router';

  /** When the devices restart at night: one after the other, clear of whatever the site does then. */
  let { siteId, mayWork }: { siteId: number; mayWork: boolean } = $props();
  const client = useQueryClient();
  const night = createQuery(() => nightQuery(siteId));
  const change = useChange();
  const problem = $derived(change.problem);
  let from = $state('');
  let until = $state('');
  let what = $state('');
  const busy = $derived(night.data?.busy ?? []);
  const plan = $derived(night.data?.plan);
  const fresh = $derived(plan?.slots.some((s) => s.changed));
  const wrong = (field: string) => problem?.errors.find((e) => e.pointer.endsWith('/' + field))?.message;

  const run = (call: () => Promise<Schemas['NightView']>) =>
    change.run(async () => client.setQueryData(['site', siteId, 'night'], await call()));
  const keepBusy = (list: Schemas['BusyTime'][]) =>
    run(() =>
      ok(api.PUT('/api/sites/{siteId}/night/busy', { params: { path: { siteId } }, body: { busy: list } })),
    );

  async function add(event: SubmitEvent) {
    event.preventDefault();
    if (await keepBusy([...busy, { from, until, what }])) from = until = what = '';
  }
</script>

<h1>Restarts at night</h1>
{#if night.error}
  <Trouble problem={asProblem(night.error)} again={() => night.refetch()} />
{:else if !plan}
  <Loading />
{:else}
  <p class="quiet mt-1">Times are the site’s own ({night.data?.zone}).</p>
  <div class="mt-4 grid gap-10 lg:grid-cols-2">
    <section aria-label="Restarts">
      {#each plan.clashes as clash (clash)}<p class="caution mb-2">{clash}</p>{/each}
      {#each plan.leftOver as name (name)}<p class="caution mb-2">{name} finds no quiet time.</p>{/each}
      {#if plan.slots.length}
        <ul>
          {#each plan.slots as s (s.endpoint)}
            <li class="flex items-baseline gap-4 border-b border-base-300 py-2">
              <span class="font-mono text-2xl font-semibold">{timeOf(s.from)}</span>
              <a class="min-w-0 flex-1" href={at(siteId, 'onboard', s.endpoint)}>{s.name}</a>
              <span class="quiet text-sm">until {timeOf(s.until)}{s.changed ? ', not set yet' : ''}</span>
            </li>
          {/each}
        </ul>
        {#if mayWork && fresh}<button
            class="btn mt-4 btn-primary"
            onclick={() =>
              run(() =>
                ok(
                  api.POST('/api/sites/{siteId}/night/hours', {
                    params: { path: { siteId } },
                  }),
                ),
              )}>Put these hours on the type sheets</button
          >{/if}
      {:else}<p class="quiet">Nothing on record here restarts at night.</p>{/if}
      {#each plan.changes as kept (kept)}<p class="quiet mt-3 text-sm">
          Kept clear: {kept}.
        </p>{/each}
    </section>
    <section aria-label="Busy hours">
      <h2>Nothing may restart</h2>
      <ul class="mt-1">
        {#each busy as b, i (b.from + b.until + b.what)}
          <li class="flex items-baseline gap-3 border-b border-base-300 py-2">
            <span class="font-mono">{timeOf(b.from)}–{timeOf(b.until)}</span><span class="flex-1"
              >{b.what}</span
            >
            {#if mayWork}<button class="link text-sm" onclick={() => keepBusy(busy.filter((_, n) => n !== i))}
                >Take out</button
              >{/if}
          </li>
        {:else}<li class="quiet py-2">
            No hours are kept yet. Put in when it is open, and when backups run.
          </li>{/each}
      </ul>
      {#if mayWork}
        <form onsubmit={add} class="mt-4 grid max-w-md grid-cols-2 gap-x-4 gap-y-3">
          <TimeField label="From" form="TIME" bind:value={from} error={wrong('from')} required />
          <TimeField label="Until" form="TIME" bind:value={until} error={wrong('until')} required />
          <div class="col-span-2">
            <TextField
              label="What happens then"
              bind:value={what}
              error={wrong('what')}
              hint="The shop is open"
              required
            />
          </div>
          <button class="btn w-fit btn-outline btn-primary btn-sm">Add these hours</button>
        </form>
      {/if}
      <Trouble problem={wrong('from') || wrong('until') || wrong('what') ? null : problem} />
    </section>
  </div>
{/if}
