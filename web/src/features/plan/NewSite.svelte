<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { api, freshKey, ok, type Schemas } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import { sitesQuery } from '../../api/queries';
  import TextField from '../../ui/TextField.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import DateStyles from './DateStyles.svelte';
  import { at, go } from '../../router';

  let { done }: { done?: () => void } = $props();
  const client = useQueryClient();
  const zones = createQuery(() => ({
    queryKey: ['zones'],
    queryFn: () => ok(api.GET('/api/zones')),
    staleTime: Infinity,
  }));
  const others = createQuery(() => sitesQuery);
  const key = freshKey();
  let like = $state(0);
  let name = $state('');
  let code = $state('');
  let zone = $state(Intl.DateTimeFormat().resolvedOptions().timeZone);
  let dates = $state<Schemas['DateStyleView']['style']>('WORDS');
  const change = useChange();
  const problem = $derived(change.problem);

  async function add(e: SubmitEvent) {
    e.preventDefault();
    await change.run(async () => {
      const made = await ok(
        api.POST('/api/sites', {
          body: { name, code: code.toUpperCase(), zone, dates, likeSiteId: like || null },
          params: { header: key },
        }),
      );
      await client.invalidateQueries({ queryKey: ['sites'] });
      done?.();
      await go(at(made.id, 'plan'));
    }, key);
  }
</script>

<form onsubmit={add} class="grid gap-4">
  <TextField label="Name of the site" bind:value={name} error={problem?.field('name')} required />
  <TextField
    label="Site code"
    bind:value={code}
    error={problem?.field('code')}
    hint="Two to five letters that begin every tag, such as PGB."
    required
  />
  <TextField label="Time zone" bind:value={zone} error={problem?.field('zone')} list={zones.data} required />
  <DateStyles bind:value={dates} />
  {#if others.data?.length}
    <div>
      <label class="field-label" for="like">Begin like another site</label>
      <select id="like" class="select w-full" bind:value={like}>
        <option value={0}>No, begin with nothing</option>
        {#each others.data as s (s.id)}<option value={s.id}>{s.name}</option>{/each}
      </select>
      {#if like}<p class="quiet mt-1 text-sm">
          Its networks, series, places, gear, registries and planned devices, without any MAC or serial.
        </p>{/if}
    </div>
  {/if}
  <Trouble {problem} />
  <button class="btn justify-self-start btn-primary">Add the site</button>
</form>
