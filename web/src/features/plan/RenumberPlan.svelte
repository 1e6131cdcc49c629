<script lang="ts">
  import { useQueryClient } from '@tanstack/svelte-query';
  import { api, freshKey, ok, type Schemas } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import { first } from '../../ui/first';
  import ReadField from '../../ui/ReadField.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { readAddress } from '../../api/readers';

  let { siteId, segments, begun }: { siteId: number; segments: Schemas['SegmentView'][]; begun: () => void } =
    $props();
  const client = useQueryClient();
  const key = freshKey();
  let segmentId = $state(0);
  const segment = $derived(segments.find((s) => s.id === segmentId) ?? first(segments));
  const f = $state({ prefix: '', gateway: '', resolver: '', from: '', to: '' });
  let plan = $state<Schemas['RenumberPlan'] | null>(null);
  const change = useChange();
  const problem = $derived(change.problem);
  const path = $derived({ siteId, segmentId: segment.id });
  const body = $derived({
    prefix: f.prefix,
    gateway: f.gateway,
    resolvers: [f.resolver].filter(Boolean),
    pools: f.from || f.to ? [{ from: f.from, to: f.to }] : [],
  });

  async function look(e: SubmitEvent) {
    e.preventDefault();
    plan = null;
    await change.run(async () => {
      plan = await ok(
        api.POST('/api/sites/{siteId}/segments/{segmentId}/renumbering-plan', { params: { path }, body }),
      );
    });
  }

  async function begin() {
    await change.run(async () => {
      await ok(
        api.POST('/api/sites/{siteId}/segments/{segmentId}/renumberings', {
          params: { path, header: key },
          body,
        }),
      );
      plan = null;
      begun();
      await client.invalidateQueries({ queryKey: ['site', siteId] });
    }, key);
  }
</script>

<div class="mt-4 grid gap-x-10 gap-y-6 lg:grid-cols-[22rem_1fr]">
  <form onsubmit={look} class="grid content-start gap-2" aria-label="What it becomes">
    <div>
      <label class="field-label" for="renumber-segment">Segment</label>
      <select
        id="renumber-segment"
        class="select w-full"
        value={segment.id}
        onchange={(e) => ((segmentId = Number(e.currentTarget.value)), (plan = null))}
      >
        {#each segments as s (s.id)}<option value={s.id}>{s.name}, {s.prefix}</option>{/each}
      </select>
    </div>
    <ReadField
      label="New prefix"
      bind:value={f.prefix}
      read={readAddress('PREFIX')}
      error={problem?.field('prefix')}
      hint="The same one when only the router changes"
    />
    <ReadField
      label="New gateway"
      bind:value={f.gateway}
      read={readAddress('GATEWAY')}
      error={problem?.field('gateway')}
    />
    <ReadField
      label="First resolver"
      bind:value={f.resolver}
      read={readAddress('RESOLVER')}
      error={problem?.field('resolvers')}
    />
    <div class="grid grid-cols-2 gap-3">
      <ReadField
        label="Handed out from"
        bind:value={f.from}
        read={readAddress('RESOLVER')}
        error={problem?.field('pools/0/from')}
      />
      <ReadField
        label="to"
        bind:value={f.to}
        read={readAddress('RESOLVER')}
        error={problem?.field('pools/0/to')}
      />
    </div>
    <Trouble problem={problem?.errors.length && problem.field('prefix') ? null : problem} />
    <button class="btn justify-self-start btn-primary">See what moves</button>
  </form>
  <section aria-label="What moves" aria-live="polite" class="min-w-0">
    {#if plan?.clash}
      <h2>It cannot be done so</h2>
      <p class="mt-1">{plan.clash}</p>
      <ul class="mt-2 list-disc pl-5">
        {#each plan.leastChanges as change (change)}<li>{change}</li>{/each}
      </ul>
    {:else if plan}
      <h2>
        {plan.moves.length} move, {plan.staying} stay{plan.changedHosts
          ? `, ${plan.changedHosts} take another host number`
          : '; every host number is kept'}
      </h2>
      <ul class="mt-2">
        {#each plan.moves as m (m.name)}
          <li class="border-b border-base-300 py-1.5">
            <div class="flex flex-wrap items-baseline gap-x-3">
              <span class="font-semibold">{m.name}</span>
              <span class="font-mono" translate="no">{m.from} → {m.to}</span>
              {#if !m.keepsHost}<span class="text-sm text-error">another host number</span>{/if}
            </div>
            {#each m.pointers as pointer (pointer)}<p class="quiet text-sm">{pointer}</p>{/each}
          </li>
        {:else}<li>No address changes; only the router and its pool do.</li>{/each}
      </ul>
      <p class="mt-3">{plan.steps.length} steps. You can stop after any of them and go on later.</p>
      <button class="btn mt-2 btn-primary" onclick={begin}>Begin with step 1</button>
    {/if}
  </section>
</div>
