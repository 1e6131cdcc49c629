<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { api, freshKey, ok, type Schemas } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
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
  const key = freshKey();
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
          body: { name, code: code.toUpperCase(), zone, dates },
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
  <Trouble {problem} />
  <button class="btn justify-self-start btn-primary">Add the site</button>
</form>
