<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { SvelteSet } from 'svelte/reactivity';
  import { asProblem, type Problem, type Schemas } from '../../api/client';
  import { sitesQuery } from '../../api/queries';
  import Loading from '../../ui/Loading.svelte';
  import TextField from '../../ui/TextField.svelte';
  import Trouble from '../../ui/Trouble.svelte';

  /** Chooses where somebody works. What is not chosen they do not see, nor anything of it. */
  let {
    person,
    busy,
    problem,
    keep,
  }: {
    person: Schemas['PersonListed'];
    busy: boolean;
    problem: Problem | null;
    keep: (everySite: boolean, sites: number[]) => void;
  } = $props();
  /** Beyond so many nobody finds one by looking. */
  const MANY = 12;
  const sites = createQuery(() => sitesQuery);
  // What stands now is where one begins; what comes in meanwhile changes nothing that was chosen.
  // svelte-ignore state_referenced_locally
  let every = $state(person.everySite);
  // svelte-ignore state_referenced_locally
  const chosen = new SvelteSet(person.workplaces.map((w) => w.id));
  let word = $state('');
  const shown = $derived(
    (sites.data ?? []).filter((s) =>
      `${s.name} ${s.client} ${s.code}`.toLowerCase().includes(word.trim().toLowerCase()),
    ),
  );
</script>

{#if sites.error}<Trouble problem={asProblem(sites.error)} again={() => sites.refetch()} />
{:else if !sites.data}<Loading />
{:else}
  <form
    onsubmit={(e) => {
      e.preventDefault();
      keep(every, every ? [] : [...chosen]);
    }}
  >
    <label class="flex items-center gap-3 py-1">
      <input type="radio" class="radio" name="where" value={true} bind:group={every} />At every site, also at
      those to come
    </label>
    <label class="flex items-center gap-3 py-1">
      <input type="radio" class="radio" name="where" value={false} bind:group={every} />Only at some. Of the
      others nothing is shown.
    </label>
    {#if !every}
      <div class="mt-2 border-l-2 border-base-300 pl-4">
        {#if sites.data.length > MANY}<TextField label="Site or client" bind:value={word} />{/if}
        <ul class="mt-2 max-h-72 overflow-y-auto" aria-label="Sites">
          {#each shown as s (s.id)}
            <li>
              <label class="flex items-center gap-3 py-1.5">
                <input
                  type="checkbox"
                  class="checkbox"
                  checked={chosen.has(s.id)}
                  onchange={(e) => (e.currentTarget.checked ? chosen.add(s.id) : chosen.delete(s.id))}
                />
                <span
                  >{s.name}{#if s.client}<span class="quiet">, {s.client}</span>{/if}</span
                >
              </label>
            </li>
          {:else}<li class="quiet py-1.5">No site is called so.</li>{/each}
        </ul>
        <p class="quiet mt-2 text-sm">
          {!chosen.size
            ? 'Choose at least one.'
            : chosen.size === 1
              ? 'One site is chosen.'
              : `${chosen.size} sites are chosen.`}
        </p>
      </div>
    {/if}
    <Trouble {problem} />
    <button class="btn mt-4 btn-primary" disabled={busy || (!every && !chosen.size)}>Keep it so</button>
  </form>
{/if}
