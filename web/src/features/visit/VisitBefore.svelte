<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { asProblem, type Schemas } from '../../api/client';
  import Loading from '../../ui/Loading.svelte';
  import { minutes } from '../../ui/time';
  import Trouble from '../../ui/Trouble.svelte';
  import { at } from '../../router';
  import { preparationQuery } from './queries';

  /** Before a visit: what goes into the car, who is asked, what is ordered, what the bench can take the day before. */
  let { visit }: { visit: Schemas['VisitView'] } = $props();
  const preparation = createQuery(() => preparationQuery(visit.head.id, visit.version));
  const p = $derived(preparation.data);
  const some = (names: string[]) => names.join(', ');
  /** Within a sentence; what is written in capitals stays so. */
  const small = (names: string[]) =>
    some(names.map((n) => n.replace(/^[A-Z](?=[a-z -])/, (l) => l.toLowerCase())));
  const inBox = (b: Schemas['Box']) =>
    `${some(b.units)}. In each box: ${small(b.kit)}.` +
    (b.leave.length ? ` Not needed: ${small(b.leave)}.` : '');
</script>

{#if preparation.error}
  <Trouble problem={asProblem(preparation.error)} again={() => preparation.refetch()} />
{:else if !p}
  <Loading />
{:else}
  <div class="mt-4 grid gap-x-10 gap-y-6 lg:grid-cols-2">
    <section aria-label="Into the car">
      <h2>Into the car</h2>
      <ul class="mt-1">
        {#each p.packing.boxes as b (b.kind)}
          {@render line(`${b.units.length} × ${b.kind}`, inBox(b))}
        {/each}
        {#each p.packing.tools as t (t.name)}
          {@render line(`${t.count} × ${t.name}`, `For ${small(t.kinds)}.`)}
        {/each}
        {#each p.packing.supplies as s (s.name)}
          {@render line(`${s.count} × ${s.name}`, `Used up, with a tenth to spare. For ${small(s.kinds)}.`)}
        {/each}
        {#each p.packing.sticks as s (s.kind)}
          {@render line(
            `Stick with the software of ${small([s.kind])}`,
            `${s.megabytes} MB that then need not come over the line, for ${some(s.units)}.`,
          )}
        {/each}
        {@render line(`${p.packing.labels} tags and labels`, 'One for each, and a tenth to spare.')}
      </ul>
      <button class="no-print btn mt-3 btn-sm" onclick={() => window.print()}>Print it</button>
    </section>
    <div class="grid content-start gap-6">
      <section aria-label="To be ordered">
        <h2>To be ordered</h2>
        {#if p.needs.length}
          <ul class="mt-1">
            {#each p.needs as n (n.name + n.who)}
              {@render line(n.name, `${n.who}, ${n.days} days. For ${some(n.units)}.`)}
            {/each}
          </ul>
          <p class="quiet mt-1 text-sm">
            They stand on the site's list with their last days: <a
              class="link"
              href={at(visit.head.siteId, 'register', 'due')}>Before the visit</a
            >.
          </p>
        {:else}<p class="mt-1">Nothing has to be ordered ahead.</p>{/if}
      </section>
      <section aria-label="Who is asked">
        <h2>Who is asked</h2>
        {#if p.packing.ask.length}
          <ul class="mt-1">
            {#each p.packing.ask as a (a.who + a.what)}
              {@render line(
                a.who,
                `${a.what}${a.what.endsWith('.') ? '' : '.'} ${some(a.units)}${a.minutes ? `, ${minutes(a.minutes)}` : ''}.`,
              )}
            {/each}
          </ul>
        {:else}<p class="mt-1">Nobody but those who come.</p>{/if}
      </section>
      {#if p.packing.bench.length}
        <section aria-label="On the bench the day before">
          <h2>On the bench the day before</h2>
          <p class="mt-1">{some(p.packing.bench)}</p>
        </section>
      {/if}
    </div>
  </div>
{/if}

{#snippet line(what: string, why: string)}
  <li class="border-b border-base-300 py-1.5">
    <span class="font-semibold">{what}</span>
    <span class="quiet block text-sm">{why}</span>
  </li>
{/snippet}
