<script lang="ts">
  import { api, ok, type Schemas } from '../../api/client';
  import Knot from '../../ui/Knot.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { at } from '../../router';
  import { registerWork } from './acts.svelte';

  let { swap, siteId, mayWork }: { swap: Schemas['SwapView']; siteId: number; mayWork: boolean } = $props();
  const work = registerWork(() => siteId);
  const header = $derived({ 'If-Match': `"${swap.version}"` });
  const open = $derived(swap.steps.filter((s) => !s.ticked).length);
  const first = $derived(swap.steps.findIndex((s) => s.mayTick));

  const tick = (index: number, ticked: boolean) =>
    work.run(() =>
      ok(
        api.PUT('/api/swaps/{id}/steps/{index}', {
          params: { path: { id: swap.id, index }, header },
          body: { ticked },
        }),
      ),
    );
  const close = () =>
    work.run(() => ok(api.POST('/api/swaps/{id}/closing', { params: { path: { id: swap.id }, header } })));
</script>

<section class="mt-5" aria-label="Swap of {swap.endpoint}">
  <h2 class="flex items-center gap-2">
    <Knot state={swap.ended ? 'PASSED' : 'ACTIVE'} size={24} />{swap.endpoint}
  </h2>
  <dl class="mt-1 grid grid-cols-[6rem_1fr] gap-y-0.5 text-sm">
    <dt class="quiet">Old unit</dt>
    <dd class="font-mono line-through" translate="no">{swap.oldUnit}</dd>
    <dt class="quiet">New unit</dt>
    <dd class="font-mono" translate="no">{swap.newUnit}</dd>
  </dl>
  {#if !swap.ended}
    <div class="mt-3 grid gap-x-12 gap-y-5 lg:grid-cols-[minmax(0,1fr)_20rem]">
      <ol class="border-t-2 border-base-content">
        {#each swap.steps as step, i (i)}
          <li class="flex items-start gap-3 border-b border-base-300 py-2" data-swap-step={step.act}>
            {#if step.act === 'SET_UP' || step.act === 'PROVE'}<Knot
                state={step.ticked ? 'PASSED' : 'PENDING'}
                size={22}
              />{:else}<input
                type="checkbox"
                class="mt-0.5 size-5 shrink-0"
                aria-label={step.title}
                checked={step.ticked}
                disabled={!mayWork || work.busy || (!step.ticked && !step.mayTick)}
                onchange={(e) => void tick(i, e.currentTarget.checked)}
              />{/if}
            <div class="min-w-0 {step.ticked ? 'quiet' : ''}">
              <p class={i === first ? 'font-bold' : ''}>{step.title}</p>
              <p class="quiet text-sm">{step.detail} {step.waits}</p>
            </div>
          </li>
        {/each}
      </ol>
      <div class="lg:order-last" role="status">
        <h3 class="font-bold">Where the old unit still stands</h3>
        {#if swap.leftovers.length}
          <ul class="mt-1 grid gap-1.5">
            {#each swap.leftovers as place (place)}<li class="flex items-start gap-2 text-sm">
                <Knot state="FAILED" size={20} /><span class="min-w-0 break-words">{place}</span>
              </li>{/each}
          </ul>
        {:else}<p class="mt-1 flex items-start gap-2 text-sm">
            <Knot state="PASSED" size={20} />No old value is left anywhere.
          </p>{/if}
        <Trouble problem={work.problem} />
        <div class="mt-4">
          {#if open}
            <a class="btn btn-outline btn-primary btn-sm" href={at(siteId, 'onboard', swap.endpointId)}
              >Go to its runbook</a
            >
          {:else if mayWork}
            <button class="btn btn-primary btn-sm" disabled={work.busy} onclick={close}
              >Close the sheet</button
            >
          {/if}
        </div>
      </div>
    </div>
  {:else}<p class="mt-1 text-sm">Done; no old value was left.</p>{/if}
</section>
