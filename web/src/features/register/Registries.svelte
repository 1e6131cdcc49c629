<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { searchParams } from 'sv-router';
  import { asProblem, type Schemas } from '../../api/client';
  import { endpointsQuery, registriesQuery, registryLinesQuery, sheetQuery } from '../../api/queries';
  import Dialog from '../../ui/Dialog.svelte';
  import Loading from '../../ui/Loading.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import EntryForm from './EntryForm.svelte';
  import EntryLine from './EntryLine.svelte';
  import HandOver from './HandOver.svelte';
  import Holdings from './Holdings.svelte';
  import RegistryForm from './RegistryForm.svelte';
  import { blank, type RegistryLine } from './states';

  let { siteId, mayWork }: { siteId: number; mayWork: boolean } = $props();
  const registries = createQuery(() => registriesQuery(siteId));
  const sheet = createQuery(() => sheetQuery(siteId));
  const endpoints = createQuery(() => endpointsQuery(siteId));
  // A line of what is due leads to the very entry.
  const wanted = Number(searchParams.get('unit')) || 0;
  let picked = $state(Number(searchParams.get('registry')) || 0);
  const chosen = $derived(registries.data?.find((r) => r.id === picked) ?? registries.data?.[0]);
  const lines = createQuery(() => ({
    ...registryLinesQuery(siteId, chosen?.id ?? 0),
    enabled: !!chosen,
  }));
  type Open = 'new' | 'rules' | 'hand-over' | 'holdings' | 'entry';
  let what = $state<Open>('new');
  let open = $state(false);
  let entry = $state<RegistryLine | null>(null);
  let ended = $state(false);
  const show = (o: Open) => ((what = o), (open = true));
  const done = () => (open = false);
  const shown = $derived((lines.data ?? []).filter((l) => ended || !l.endedAt));
  // Any living unit may be put in, also where the rules do not ask for it, such as at a guest desk.
  const addable = $derived(
    (endpoints.data ?? []).filter((e) => !lines.data?.some((l) => l.endpointId === e.id && !l.endedAt)),
  );
  let another = $state(0);
  const past = $derived((lines.data ?? []).filter((l) => l.endedAt).length);
  const TITLES: Record<Open, string> = {
    new: 'New registry',
    rules: 'Rules of the registry',
    'hand-over': 'Hand over the list',
    holdings: 'What does it really hold?',
    entry: 'Register a unit',
  };
  const title = $derived(
    what === 'entry' && entry
      ? `${entry.endpoint} in ${entry.registry}`
      : TITLES[what] + (what === 'new' ? '' : ': ' + (chosen?.name ?? '')),
  );
  const rulesOf = (r: Schemas['RegistryView']) =>
    [
      r.segmentId && sheet.data?.data.segments.find((s) => s.id === r.segmentId)?.name,
      r.lifetimeWords && 'an entry lasts ' + r.lifetimeWords,
      r.rules.most && 'at most ' + r.rules.most + ' entries',
      r.rules.restart && 'joins after a restart',
      r.rules.waitsFor && `${r.rules.waitsFor} enters it, ${r.rules.leadDays} days`,
    ]
      .filter(Boolean)
      .join(' · ');
  function edit(line: RegistryLine) {
    entry = line;
    show('entry');
  }
</script>

<div class="flex flex-wrap items-center gap-3">
  <h1 class="mr-auto">Registries</h1>
  {#if mayWork}<button class="btn btn-outline btn-primary btn-sm" onclick={() => show('new')}
      >New registry</button
    >{/if}
</div>
{#if registries.error}
  <Trouble problem={asProblem(registries.error)} again={() => registries.refetch()} />
{:else if !registries.data}
  <Loading />
{:else if !chosen}
  <p class="mt-4 max-w-prose">
    A registry is a place where MACs must be registered before a device may join or is served: the router's
    reservation list, a switch's access list, a self-service portal, a guest desk, an outside service. This
    site has none on record.
    {#if mayWork}<button class="link text-primary" onclick={() => show('new')}>Put the first one here</button
      >.{/if}
  </p>
{:else}
  <div class="mt-4 grid gap-x-10 gap-y-6 lg:grid-cols-[18rem_minmax(0,1fr)]">
    <ul class="min-w-0" aria-label="Registries of the site">
      {#each registries.data as r (r.id)}
        <li>
          <button
            class="w-full rounded border-l-4 px-3 py-2 text-left hover:bg-base-200 {r.id === chosen.id
              ? 'border-accent bg-base-200'
              : 'border-transparent'}"
            aria-current={r.id === chosen.id}
            onclick={() => (picked = r.id)}
          >
            <span class="block font-semibold">{r.name}</span>
            <span class="quiet block text-sm">{r.typeWords}</span>
            <span class="block text-sm"
              >{[
                r.counts.TO_REGISTER && r.counts.TO_REGISTER + ' to register',
                r.counts.SUBMITTED && r.counts.SUBMITTED + ' under way',
                r.counts.ENDED && r.counts.ENDED + ' run out',
                r.toCorrect && r.toCorrect + ' to correct',
                (r.counts.IN_FORCE ?? 0) + (r.counts.EXPIRING ?? 0) + ' in force',
              ]
                .filter(Boolean)
                .join(', ')}</span
            >
          </button>
        </li>
      {/each}
    </ul>
    <section class="min-w-0" aria-label={chosen.name}>
      <div class="flex flex-wrap items-center gap-2 border-b-2 border-base-content pb-2">
        <h2 class="mr-auto">{chosen.name}</h2>
        {#if mayWork}
          <button class="btn btn-primary btn-sm" onclick={() => show('hand-over')}>Hand over</button>
          <button class="btn btn-outline btn-primary btn-sm" onclick={() => show('holdings')}
            >Compare with its list</button
          >
          <button class="btn btn-ghost btn-sm" onclick={() => show('rules')}>Rules</button>
        {/if}
      </div>
      <p class="quiet mt-1 text-sm">{rulesOf(chosen)}</p>
      {#if lines.error}<Trouble problem={asProblem(lines.error)} again={() => lines.refetch()} />
      {:else if !lines.data}<Loading />
      {:else}
        <ul class="mt-2">
          {#each shown as line (line.id ?? 'm' + line.endpointId)}
            <EntryLine
              {line}
              here={line.endpointId === wanted}
              {siteId}
              {mayWork}
              of="registry"
              register={edit}
              people={edit}
            />
          {:else}<li class="quiet py-3">
              No unit of this site has to stand here{chosen.type === 'GUEST_DESK'
                ? '; guests are registered as they come'
                : ''}.
            </li>{/each}
        </ul>
        {#if mayWork && addable.length}
          <label class="mt-3 flex flex-wrap items-center gap-2 text-sm"
            >Register another unit<select
              class="select w-64 select-sm"
              bind:value={another}
              onchange={() => {
                const unit = addable.find((u) => u.id === another);
                another = 0;
                if (unit && chosen) edit(blank(chosen, unit));
              }}
            >
              <option value={0}>choose it</option>
              {#each addable as u (u.id)}<option value={u.id}>{u.name}</option>{/each}
            </select></label
          >
        {/if}
        {#if past}<button class="mt-2 link text-sm" onclick={() => (ended = !ended)}
            >{ended ? 'Hide' : 'Show'} the {past} taken out lately</button
          >{/if}
      {/if}
    </section>
  </div>
{/if}
<Dialog bind:open {title} wide>
  {#if what === 'entry' && entry && chosen}
    <EntryForm line={entry} rules={chosen.rules} {siteId} {done} />
  {:else if what === 'hand-over' && chosen}<HandOver registry={chosen} {siteId} {done} />
  {:else if what === 'holdings' && chosen}<Holdings registry={chosen} {siteId} {done} />
  {:else if sheet.data}
    <RegistryForm
      sheet={sheet.data}
      registry={what === 'rules' ? chosen : undefined}
      done={(id) => ((picked = id ?? picked), done())}
    />
  {/if}
</Dialog>
