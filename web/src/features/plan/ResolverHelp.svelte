<script lang="ts">
  import { api, ok, type Schemas } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import TextField from '../../ui/TextField.svelte';
  import Trouble from '../../ui/Trouble.svelte';

  /** Which two resolvers the devices of a segment should use, from what is at hand and what the site allows. */
  let { own, take }: { own: string; take: (pair: string[]) => void } = $props();
  const HANDS = { site: 'The site’s own', provider: 'The provider’s', open: 'A public pair' };
  let typed = $state<Partial<typeof HANDS>>({});
  const hand = $derived({ site: own, provider: '', open: '', ...typed });
  let insideNames = $state(false);
  let outsideClosed = $state(false);
  let choice = $state<Schemas['ResolverChoice']>();
  const change = useChange();
  const both = (text: string) => text.split(/[\s,;]+/).filter(Boolean);

  const ask = () =>
    change.run(async () => {
      const { site, provider, open } = hand;
      const at = { site: both(site), provider: both(provider), open: both(open) };
      const body = { ...at, insideNames, outsideAllowed: !outsideClosed };
      choice = await ok(api.POST('/api/resolvers/choice', { body }));
    });
</script>

<details class="sm:col-span-2">
  <summary class="cursor-pointer text-sm">Which resolvers to take</summary>
  <div class="mt-3 grid gap-x-6 gap-y-2 border-l-2 border-base-300 pl-4 sm:grid-cols-3">
    {#each Object.keys(HANDS) as (keyof typeof HANDS)[] as key (key)}
      <TextField
        label={HANDS[key]}
        bind:value={() => hand[key], (v) => (typed[key] = v)}
        error={change.problem?.field(key)}
        hint={key === 'site' ? undefined : 'Two, a blank between'}
      />
    {/each}
    <div class="grid gap-1 text-sm sm:col-span-3">
      <label><input type="checkbox" bind:checked={insideNames} /> A device here calls something by name</label
      >
      <label><input type="checkbox" bind:checked={outsideClosed} /> Lookup outside (port 53) is closed</label>
    </div>
    <div class="sm:col-span-3">
      <Trouble problem={change.problem?.errors.length ? null : change.problem} />
      <button type="button" class="btn btn-outline btn-primary btn-sm" onclick={ask}>Work it out</button>
      {#if choice}
        <p class="mt-2" role="status"><b>{choice.resolvers.join(', then ')}</b><br />{choice.reason}</p>
        {#if choice.resolvers.length}
          <p class="quiet text-sm">Both are asked a test name at Confirm; until then nobody knows.</p>
          {@const pair = choice.resolvers}
          <button type="button" class="btn mt-2 btn-sm" onclick={() => take(pair)}>Take these</button>
        {/if}
      {/if}
    </div>
  </div>
</details>
