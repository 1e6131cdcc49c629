<script lang="ts">
  import { useQueryClient } from '@tanstack/svelte-query';
  import { api, asProblem, freshKey, ok, type Problem } from '../../api/client';
  import ReadField from '../../ui/ReadField.svelte';
  import TextField from '../../ui/TextField.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { readAddress } from '../address/readers';

  let { siteId, done }: { siteId: number; done?: () => void } = $props();
  const client = useQueryClient();
  const key = freshKey();
  const f = $state({
    name: '',
    prefix: '',
    gateway: '',
    first: '',
    second: '',
    from: '',
    to: '',
    series: '',
    hostBase: '',
    portBase: '',
  });
  let problem = $state<Problem | null>(null);

  async function add(e: SubmitEvent) {
    e.preventDefault();
    try {
      await ok(
        api.POST('/api/sites/{siteId}/segments', {
          params: { path: { siteId }, header: key },
          body: {
            name: f.name,
            prefix: f.prefix,
            gateway: f.gateway,
            resolvers: [f.first, f.second].filter(Boolean),
            poolFrom: f.from,
            poolTo: f.to,
            seriesName: f.series,
            seriesHostBase: f.hostBase ? Number(f.hostBase) : undefined,
            seriesPortBase: f.portBase ? Number(f.portBase) : undefined,
          },
        }),
      );
      await client.invalidateQueries({ queryKey: ['site', siteId] });
      done?.();
    } catch (error) {
      problem = asProblem(error);
    }
  }
</script>

<form onsubmit={add} class="grid gap-x-6 gap-y-2 sm:grid-cols-2">
  <TextField
    label="Name"
    bind:value={f.name}
    error={problem?.field('name')}
    hint="Such as Shop floor"
    required
  />
  <ReadField
    label="Prefix"
    bind:value={f.prefix}
    read={readAddress('PREFIX')}
    error={problem?.field('prefix')}
    hint="Such as 10.44.16.0/24"
  />
  <ReadField
    label="Gateway"
    bind:value={f.gateway}
    read={readAddress('GATEWAY')}
    error={problem?.field('gateway')}
  />
  <ReadField
    label="First resolver"
    bind:value={f.first}
    read={readAddress('RESOLVER')}
    error={problem?.field('resolvers')}
  />
  <ReadField label="Second resolver" bind:value={f.second} read={readAddress('RESOLVER')} />
  <div class="hidden sm:block"></div>
  <ReadField
    label="Handed out automatically from"
    bind:value={f.from}
    read={readAddress('ADDRESS')}
    error={problem?.field('poolFrom')}
  />
  <ReadField label="to" bind:value={f.to} read={readAddress('ADDRESS')} error={problem?.field('poolTo')} />
  <TextField label="Numbered series" bind:value={f.series} hint="Till, to have numbered payment terminals" />
  <div class="grid grid-cols-2 gap-4">
    <TextField
      label="Host = number +"
      bind:value={f.hostBase}
      error={problem?.field('seriesHostBase')}
      hint="Such as 50"
    />
    <TextField label="Port = number +" bind:value={f.portBase} hint="Such as 7450" />
  </div>
  <div class="sm:col-span-2">
    <Trouble {problem} />
    <button class="btn btn-primary">Add the segment</button>
  </div>
</form>
