<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { asProblem } from '../../api/client';
  import { recipeQuery } from '../../api/queries';
  import Loading from '../../ui/Loading.svelte';
  import Trouble from '../../ui/Trouble.svelte';

  /** A kind written out: what is done in which order, what must be seen, how long it takes, what to beware of. */
  let { id, name }: { id: string; name: string } = $props();
  const query = createQuery(() => recipeQuery(id));
  const recipe = $derived(query.data);
</script>

<section aria-label="{name} as a recipe" class="min-w-0">
  <h2>{name}</h2>
  {#if query.error}
    <Trouble problem={asProblem(query.error)} again={() => query.refetch()} />
  {:else if !recipe}
    <Loading />
  {:else}
    {#if recipe.before.length}
      <h3 class="mt-2 font-semibold">Before you begin</h3>
      <ul class="list-disc pl-5 text-sm">
        {#each recipe.before as b (b)}<li>{b}</li>{/each}
      </ul>
    {/if}
    <ol class="mt-4 grid gap-4">
      {#each recipe.steps as s, i (s.title)}
        <li class="border-l-2 border-base-300 pl-4">
          <h3 class="font-semibold">{i + 1}. {s.title}</h3>
          {#if s.when}<p class="quiet text-sm">{s.when}</p>{/if}
          {#each s.hint as h (h)}<p>{h}</p>{/each}
          {#if s.caution}<p class="caution my-1">{s.caution}</p>{/if}
          {#if s.takes}<p class="text-sm"><span class="font-semibold">Wait:</span> {s.takes}</p>{/if}
          <p class="text-sm"><span class="font-semibold">Done when:</span> {s.gate}</p>
          {#each s.after as a (a)}<p class="quiet text-sm">{a}</p>{/each}
          {#if s.recovery}<p class="quiet text-sm">Its moment has passed: {s.recovery}</p>{/if}
          {#if s.waysOut.length}<p class="quiet text-sm">
              When it fails again and again: {s.waysOut.join(' ')}
            </p>{/if}
        </li>
      {/each}
    </ol>
    <div class="mt-5 grid gap-6 sm:grid-cols-2">
      <div>
        <h3 class="font-semibold">Its network menu, in order</h3>
        <ol class="list-decimal pl-5 text-sm">
          {#each recipe.menu as m (m)}<li>{m}</li>{/each}
        </ol>
      </div>
      {#if recipe.lights.length}<div>
          <h3 class="font-semibold">Lights, icons and beeps</h3>
          <ul class="list-disc pl-5 text-sm">
            {#each recipe.lights as l (l)}<li>{l}</li>{/each}
          </ul>
        </div>{/if}
    </div>
  {/if}
</section>
