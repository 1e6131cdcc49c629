<script lang="ts">
  import type { Schemas } from '../../api/client';
  import { at } from '../../router';

  /** Everything that a change asks for, in the order in which it is done. */
  let { siteId, steps }: { siteId: number; steps: Schemas['ImpactStep'][] } = $props();
  /** So many are read in one go. */
  const FIRST = 100;
  let all = $state(false);
  const shown = $derived(all ? steps : steps.slice(0, FIRST));
  const WORDS = { CHANGE: 'Change', MEND: 'Set', RENEW: 'Restart', PROVE: 'Prove' } as const;
</script>

<div>
  <ol aria-label="What to do, in this order">
    {#each shown as s, i (i)}
      <li
        class={[
          'grid grid-cols-[2.25rem_4.5rem_minmax(0,1fr)_auto] gap-x-3 border-b border-base-300 py-2.5',
          'max-sm:grid-cols-[2.25rem_minmax(0,1fr)_auto]',
        ]}
      >
        <span class="quiet text-right font-mono tabular-nums">{i + 1}</span>
        <span class="font-semibold max-sm:col-span-2">{WORDS[s.act]}</span>
        <div class="min-w-0 max-sm:col-start-2">
          <p>
            {#if s.device}<a class="link font-semibold" href={at(siteId, 'plan', s.device)}>{s.thing}</a
              >{:else}<span class="font-semibold">{s.thing}</span>{/if}{#if s.place}<span class="quiet"
                >, {s.place}</span
              >{/if}
          </p>
          <p>{s.title}</p>
          {#if s.why}<p class="quiet text-sm">{s.why}</p>{/if}
        </div>
        <span class="text-right whitespace-nowrap"
          >{s.minutes} min{#if s.alone}<span class="quiet block text-sm">and {s.alone} by itself</span
            >{/if}</span
        >
      </li>
    {/each}
  </ol>
  {#if shown.length < steps.length}
    <button class="btn mt-3 justify-self-start btn-sm" onclick={() => (all = true)}
      >Show all {steps.length}</button
    >
  {/if}
</div>
