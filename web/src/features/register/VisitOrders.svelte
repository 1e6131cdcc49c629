<script lang="ts">
  import { untrack } from 'svelte';
  import { api, freshKey, ok, type Schemas } from '../../api/client';
  import TextField from '../../ui/TextField.svelte';
  import TimeField from '../../ui/TimeField.svelte';
  import { dayOf } from '../../ui/time';
  import Trouble from '../../ui/Trouble.svelte';
  import { registerWork } from './acts.svelte';

  /** What must be ordered or asked for before the visit, each with its last day. */
  let { siteId, due, mayWork }: { siteId: number; due: Schemas['DueView']; mayWork: boolean } = $props();
  const work = registerWork(() => siteId);
  let visit = $state(untrack(() => (due.visitOn ? dayOf(due.visitOn) : '')));
  let slack = $state(untrack(() => String(due.visitSlack)));
  let adding = $state(false);
  let key = freshKey();
  const f = $state({ name: '', who: '', days: '', after: '' });
  // A fault of a field that is there to be seen stands beside it.
  const beside = $derived(
    work.problem?.field('on') ||
      work.problem?.field('slack') ||
      (adding && work.problem?.errors.some((e) => e.pointer.length > 1)),
  );
  const late = $derived(due.orders.some((o) => o.late));

  const plan = () =>
    work.run(() =>
      ok(
        api.PUT('/api/sites/{siteId}/visit', {
          params: { path: { siteId } },
          body: { on: visit || undefined, slack: Number(slack) || 0 },
        }),
      ),
    );

  async function add(event: SubmitEvent) {
    event.preventDefault();
    const added = await work.run(() =>
      ok(
        api.POST('/api/sites/{siteId}/prerequisites', {
          params: { path: { siteId }, header: key },
          body: { ...f, days: Number(f.days) || 0 },
        }),
      ),
    );
    if (!added) return;
    Object.assign(f, { name: '', who: '', days: '', after: '' });
    key = freshKey();
    adding = false;
  }
</script>

<section aria-label="Before the visit">
  <div class="flex items-baseline justify-between gap-4">
    <h2>Before the visit</h2>
    {#if mayWork && !adding}<button class="link text-sm text-primary" onclick={() => (adding = true)}
        >Add what must be there</button
      >{/if}
  </div>
  <form
    class="mt-1 flex flex-wrap items-start gap-x-4"
    onsubmit={(e) => {
      e.preventDefault();
      void plan();
    }}
  >
    <div class="w-56">
      <TimeField
        label="The visit is on"
        form="DAY"
        bind:value={visit}
        error={work.problem?.field('on')}
        disabled={!mayWork}
        onchange={() => void plan()}
      />
    </div>
    <TextField
      label="Days kept free before it"
      mode="numeric"
      mono
      bind:value={slack}
      disabled={!mayWork}
      error={work.problem?.field('slack')}
      onchange={() => void plan()}
    />
  </form>
  {#if due.orders.length}
    <p class="mt-2 {late ? 'text-error' : ''}">
      {#if late}Too late for that day:
      {:else if !due.visitOn}Ordered today,
      {:else}In time. Ordered today,{/if}
      the earliest visit is on {dayOf(due.earliest)}{due.chain.length > 1
        ? ', because ' + due.chain.join(', then ') + ' take longest'
        : ''}.
    </p>
    <ul class="mt-1">
      {#each due.orders as o (o.name)}
        <li class="flex items-baseline gap-3 border-b border-base-300 py-1.5">
          {#if o.id && mayWork}<input
              type="checkbox"
              class="size-4 translate-y-0.5"
              aria-label="{o.name} is there"
              checked={o.done}
              onchange={(e) => {
                const done = e.currentTarget.checked;
                void work.run(() =>
                  ok(
                    api.PUT('/api/sites/{siteId}/prerequisites/{id}', {
                      params: { path: { siteId, id: o.id ?? 0 } },
                      body: { done },
                    }),
                  ),
                );
              }}
            />{/if}
          <span class="min-w-0 flex-1 {o.done ? 'quiet line-through' : ''}"
            >{o.name}
            <span class="quiet text-sm"
              >{[o.who, o.days + (o.days === 1 ? ' day' : ' days'), o.after && 'after ' + o.after]
                .filter(Boolean)
                .join(', ')}</span
            ></span
          >
          {#if o.by && !o.done}<span class="text-sm {o.late ? 'font-semibold text-error' : ''}"
              >order by {dayOf(o.by)}</span
            >{/if}
        </li>
      {/each}
    </ul>
  {:else}
    <p class="quiet mt-2 text-sm">
      Key files, couriers, accounts, the electrician: what takes days goes here, and the last day to ask for
      it is worked out.
    </p>
  {/if}
  <Trouble problem={beside ? null : work.problem} />
  {#if adding}
    <form class="mt-3 grid gap-3 sm:grid-cols-2" onsubmit={add}>
      <TextField label="What" bind:value={f.name} error={work.problem?.field('name')} required />
      <TextField label="By whom" bind:value={f.who} error={work.problem?.field('who')} />
      <TextField label="Days it takes" bind:value={f.days} error={work.problem?.field('days')} mono />
      <TextField
        label="Can be ordered only after"
        bind:value={f.after}
        error={work.problem?.field('after')}
        list={due.orders.map((o) => o.name)}
      />
      <div class="sm:col-span-2">
        <button class="btn btn-primary btn-sm" disabled={work.busy}>Add it</button>
        <button type="button" class="btn btn-ghost btn-sm" onclick={() => (adding = false)}>Leave it</button>
      </div>
    </form>
  {/if}
</section>
