<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, asProblem, ok, type Schemas } from '../../api/client';
  import { cleanUpQuery } from '../../api/queries';
  import Knot from '../../ui/Knot.svelte';
  import Loading from '../../ui/Loading.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { at } from '../../router';
  import { registerWork } from './acts.svelte';

  let { siteId, mayWork }: { siteId: number; mayWork: boolean } = $props();
  const clean = createQuery(() => cleanUpQuery(siteId));
  const work = registerWork(() => siteId);
  let name = $state('');
  const same = (a: string, b: string) => a.toLowerCase() === b.toLowerCase();
  const people = $derived([
    ...(clean.data?.owners ?? []),
    ...(clean.data?.left ?? []).filter((l) => !clean.data?.owners.some((o) => same(o, l))),
  ]);
  const SURE = ['UNIT_RETIRED', 'OTHER_UNIT', 'OWNER_LEFT'];

  const owner = (person: string, left: boolean) =>
    work.run(() =>
      ok(
        api.PUT('/api/sites/{siteId}/owners', { params: { path: { siteId } }, body: { name: person, left } }),
      ),
    );
  const out = (item: Schemas['CleanUpItem']) =>
    work.run(() =>
      ok(
        api.POST('/api/registrations/{id}/acts', {
          params: { path: { id: item.registration }, header: { 'If-Match': `"${item.version}"` } },
          body: { act: 'TAKE_OUT', reason: item.message.slice(0, 110) },
        }),
      ),
    );
</script>

<h1>Clean up</h1>
<p class="quiet mt-1 max-w-prose">
  Entries that nobody owns, nobody sees, or whose time is over. Each is a door that stands open for nobody.
</p>
<Trouble problem={work.problem} />
{#if clean.error}
  <Trouble problem={asProblem(clean.error)} again={() => clean.refetch()} />
{:else if !clean.data}
  <Loading />
{:else}
  <div class="mt-4 grid gap-x-12 gap-y-8 lg:grid-cols-[minmax(0,1fr)_20rem]">
    <section aria-label="Entries to look at">
      {#if clean.data.items.length}
        <ul>
          {#each clean.data.items as item (item.registration)}
            <li class="flex items-start gap-3 border-b border-base-300 py-2" data-reason={item.reason}>
              <Knot state={SURE.includes(item.reason) ? 'FAILED' : 'PENDING'} size={22} />
              <div class="min-w-0 flex-1">
                <p>
                  <a class="hover:underline" href={at(siteId, 'register', item.endpointId)}>{item.message}</a>
                </p>
                <p class="quiet text-sm">{item.wayOut}</p>
              </div>
              {#if mayWork}<button
                  class="btn btn-outline btn-error btn-sm"
                  disabled={work.busy}
                  onclick={() => void out(item)}
                  aria-label="Taken out: {item.message}">Taken out</button
                >{/if}
            </li>
          {/each}
        </ul>
      {:else}
        <p class="flex items-center gap-2"><Knot state="PASSED" size={24} />Every entry has its reason.</p>
      {/if}
    </section>
    <section aria-label="Owners">
      <h2>Owners</h2>
      <ul class="mt-1">
        {#each people as person (person)}
          {@const left = clean.data.left.some((l) => same(l, person))}
          <li class="flex items-baseline gap-3 border-b border-base-300 py-1.5">
            <span class="flex-1 {left ? 'quiet line-through' : ''}">{person}</span>
            {#if mayWork}<button class="link text-sm text-primary" onclick={() => void owner(person, !left)}
                >{left ? 'Is back' : 'Has left'}</button
              >{/if}
          </li>
        {/each}
      </ul>
      {#if mayWork}
        <form
          class="mt-2 flex gap-2"
          onsubmit={async (e) => {
            e.preventDefault();
            if (await owner(name, true)) name = '';
          }}
        >
          <input
            class="input input-sm"
            aria-label="Somebody who has left"
            placeholder="Name"
            bind:value={name}
          />
          <button class="btn btn-outline btn-primary btn-sm" disabled={!name.trim()}>Has left</button>
        </form>
      {/if}
    </section>
  </div>
{/if}
