<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, ok, type Schemas } from '../../api/client';
  import { chainQuery, interfacesQuery, registrationsQuery, registriesQuery } from '../../api/queries';
  import Dialog from '../../ui/Dialog.svelte';
  import TextField from '../../ui/TextField.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { registerWork } from './acts.svelte';
  import EntryForm from './EntryForm.svelte';
  import EntryLine from './EntryLine.svelte';
  import Interfaces from './Interfaces.svelte';
  import LabelForm from '../../ui/LabelForm.svelte';
  import ReplaceUnit from './ReplaceUnit.svelte';
  import { FACTS, type RegistryLine } from './states';

  let { endpoint, next }: { endpoint: { data: Schemas['EndpointView']; etag: string }; next?: () => void } =
    $props();
  const e = $derived(endpoint.data);
  const lines = createQuery(() => registrationsQuery(e.id));
  const faces = createQuery(() => interfacesQuery(e.id));
  const chain = createQuery(() => chainQuery(e.id));
  const registries = createQuery(() => registriesQuery(e.siteId));
  const work = registerWork(
    () => e.siteId,
    () => ['endpoint', e.id],
  );
  type Open = 'entry' | 'interfaces' | 'replace' | 'away';
  let what = $state<Open>('entry');
  let open = $state(false);
  let entry = $state<RegistryLine | null>(null);
  let why = $state('');
  const show = (o: Open) => ((what = o), (open = true));
  const done = () => (open = false);
  const broken = $derived(chain.data?.filter((l) => l.broken && l.sort !== 'REGISTRY') ?? []);
  const others = $derived(faces.data?.filter((f) => !f.counts) ?? []);
  const rules = $derived(registries.data?.find((r) => r.id === entry?.registryId)?.rules);
  const TITLES = $derived({
    entry: `${e.name} in ${entry?.registry ?? ''}`,
    interfaces: 'Interfaces of ' + e.name,
    replace: 'Replace the unit: ' + e.name,
    away: 'Put away: ' + e.name,
  });
  function edit(line: RegistryLine) {
    entry = line;
    show('entry');
  }
  const away = (gone: boolean) =>
    work.run(() =>
      ok(
        api.PUT('/api/endpoints/{id}/away', {
          params: { path: { id: e.id }, header: { 'If-Match': endpoint.etag } },
          body: { away: gone, why },
        }),
      ),
    );
</script>

<section class="my-4 border-y border-base-300 py-4" aria-label="Label of {e.name}">
  <h2 class="mb-2">{e.name}: what the label says</h2>
  {#if e.awaySince}<p class="caution mb-2">
      It is away{e.awayWhy ? ': ' + e.awayWhy : ''}.
      <button class="link text-primary" onclick={() => away(false)}>It is back</button>
    </p>{/if}
  <LabelForm {endpoint} {next} />
  <div class="mt-3 flex flex-wrap items-center gap-x-4 gap-y-1 text-sm">
    {#if others.length}<span class="quiet"
        >Also on record: {#each others as o, i (o.id)}{i ? ', ' : ''}{o.words}
          <span class="font-mono" translate="no">{o.mac}</span>{/each}</span
      >{/if}
    <button class="link text-primary" onclick={() => show('interfaces')}>Interfaces</button>
    {#if e.mac}<button class="link text-primary" onclick={() => show('replace')}>Replace the unit</button
      >{/if}
    {#if !e.awaySince}<button class="link text-primary" onclick={() => ((why = ''), show('away'))}
        >Put it away</button
      >{/if}
  </div>
</section>
{#if lines.data?.length}
  <section class="mb-4" aria-label="Registrations of {e.name}">
    <h2>Where it is registered</h2>
    <ul class="mt-1">
      {#each lines.data.filter((l) => !l.endedAt) as line (line.id ?? 'r' + line.registryId)}
        <EntryLine {line} siteId={e.siteId} mayWork of="endpoint" register={edit} people={edit} />
      {/each}
    </ul>
    {#if broken.length}
      <p class="mt-2 text-sm text-error">
        {#each broken as l, i (l.place + l.fact)}{i ? ' ' : ''}{l.name} has {l.holds || 'nothing'} for the {FACTS[
            l.fact
          ]}{/each}.
      </p>
    {/if}
  </section>
{/if}
<Dialog bind:open title={TITLES[what]} wide>
  {#if what === 'entry' && entry && rules}<EntryForm line={entry} {rules} siteId={e.siteId} {done} />
  {:else if what === 'interfaces' && faces.data}<Interfaces {endpoint} faces={faces.data} {done} />
  {:else if what === 'replace'}<ReplaceUnit {endpoint} {done} />
  {:else if what === 'away'}
    <form
      onsubmit={async (event) => {
        event.preventDefault();
        if (await away(true)) done();
      }}
    >
      <p>
        At the repair shop, or lent out. Its address and entries stay; what runs out meanwhile is said before
        it comes back.
      </p>
      <div class="my-3">
        <TextField label="Why, and where it is" bind:value={why} error={work.problem?.field('why')} />
      </div>
      <Trouble problem={work.problem?.field('why') ? null : work.problem} />
      <button class="btn btn-primary">Put it away</button>
    </form>
  {/if}
</Dialog>
