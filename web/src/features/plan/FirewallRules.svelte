<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { asProblem, type Schemas } from '../../api/client';
  import { firewallQuery } from '../../api/queries';
  import Loading from '../../ui/Loading.svelte';
  import Trouble from '../../ui/Trouble.svelte';

  let { siteId }: { siteId: number } = $props();
  const rules = createQuery(() => firewallQuery(siteId));
  let copied = $state(false);
  const through = (r: Schemas['Rule']) => `${r.protocol === 'ANY' ? 'any' : r.protocol}\t${r.port || 'any'}`;
  const text = $derived(
    (rules.data ?? []).map((r) => [r.from, r.to, through(r), r.why].join('\t')).join('\n'),
  );

  async function copy() {
    await navigator.clipboard.writeText(text);
    copied = true;
  }
</script>

{#if rules.error}
  <Trouble problem={asProblem(rules.error)} again={() => rules.refetch()} />
{:else if !rules.data}
  <Loading />
{:else}
  <p class="quiet">
    The fewest that let everything on record do its work. Nothing comes in from the internet.
  </p>
  <div class="mt-2 max-h-[55vh] overflow-auto">
    <table class="w-full text-sm">
      <thead
        ><tr class="border-b-2 border-base-content text-left"
          ><th class="py-1 pr-3">From</th><th class="pr-3">To</th><th class="pr-3">Port</th><th>Why</th></tr
        ></thead
      >
      <tbody>
        {#each rules.data as r, i (i)}
          <tr class="border-b border-base-300 align-top">
            <td class="py-1 pr-3">{r.from}</td><td class="pr-3">{r.to}</td>
            <td class="pr-3 font-mono whitespace-nowrap">{through(r)}</td><td class="quiet">{r.why}</td>
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
  <button class="btn mt-3 btn-outline btn-primary" onclick={copy}
    >{copied ? 'Copied' : 'Copy as a table'}</button
  >
{/if}
