<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, freshKey, ok, type Schemas } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import { sessionQuery } from '../../api/queries';
  import TimeField from '../../ui/TimeField.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { go, visitAt } from '../../router';

  /** Makes a visit of a change: its steps as tasks, those of a later stage after those of an earlier one. */
  let { siteId, name, errands }: { siteId: number; name: string; errands: Schemas['Errand'][] } = $props();
  const session = createQuery(() => sessionQuery);
  const change = useChange(() => [['site', siteId, 'visits']]);
  const key = freshKey();
  /** What one visit takes; the server refuses more. */
  const MOST = 30;
  let begins = $state('');
  const field = $derived(change.problem?.field('begins'));

  async function plan(ev: SubmitEvent) {
    ev.preventDefault();
    let id = 0;
    const made = await change.run(async () => {
      const visit = await ok(
        api.POST('/api/sites/{siteId}/visits', {
          params: { path: { siteId }, header: key },
          body: {
            name: name.slice(0, 120),
            begins,
            walk: 1,
            people: [{ name: session.data?.name ?? '' }],
            units: [],
            tasks: errands.map((e) => ({ ...e })),
          },
        }),
      );
      id = visit.id;
    }, key);
    if (!made) return;
    // It is made, whatever becomes of its plan; the visit says so and plans anew.
    await change.run(() => ok(api.POST('/api/visits/{id}/plan', { params: { path: { id } } })));
    void go(visitAt(siteId, id));
  }
</script>

<section aria-labelledby="visit">
  <h2 id="visit" class="font-bold">Make a visit of it</h2>
  {#if errands.length > MOST}
    <p class="mt-1">
      These are {errands.length} tasks, and one visit takes {MOST}. Change one network at a time, or plan
      visits for parts of it.
    </p>
  {:else}
    <form class="mt-1 grid gap-2" onsubmit={plan}>
      <TimeField label="When it begins" form="MOMENT" bind:value={begins} error={field} required />
      <button class="btn justify-self-start btn-primary" disabled={change.busy}>Plan the visit</button>
      <p class="quiet text-sm">
        {errands.length === 1 ? 'One task' : `${errands.length} tasks`}, in this order; who comes along is
        said there.
      </p>
      {#if change.problem && !field}<Trouble problem={change.problem} />{/if}
    </form>
  {/if}
</section>
