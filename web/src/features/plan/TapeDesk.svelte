<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { asProblem, type Schemas } from '../../api/client';
  import { tapeQuery } from '../../api/queries';
  import { first } from '../../ui/first';
  import { draft } from '../../ui/draft.svelte';
  import Loading from '../../ui/Loading.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { at, go } from '../../router';
  import ChangeEndpoint from './ChangeEndpoint.svelte';
  import Lately from '../../ui/Lately.svelte';
  import MendList from './MendList.svelte';
  import NewEndpoint from './NewEndpoint.svelte';
  import SegmentHead from './SegmentHead.svelte';
  import Tape from './Tape.svelte';

  let {
    site,
    chosen,
    endpoint,
    mayWork,
  }: {
    site: Schemas['SiteView'];
    chosen: number | 'new';
    endpoint?: { data: Schemas['EndpointView']; etag: string };
    mayWork: boolean;
  } = $props();
  // A stranger is taken in where it was seen.
  let picked = $state(draft.stranger?.segmentId ?? 0);
  let proposed = $state<{ host: number; label: string } | null>(null);
  const siteId = $derived(site.id);
  const segment = $derived(
    site.segments.find((s) => s.id === (endpoint?.data.segmentId ?? picked)) ??
      site.segments.find((s) => s.id === picked) ??
      first(site.segments),
  );
  const tape = createQuery(() => tapeQuery(siteId, segment.id));

  function plant(host: number) {
    draft.host = host;
    void go(at(siteId, 'plan', 'new'));
  }
</script>

<SegmentHead segments={site.segments} {segment} pick={(id) => ((picked = id), go(at(siteId, 'plan')))} />
{#if tape.error}
  <Trouble problem={asProblem(tape.error)} again={() => tape.refetch()} />
{:else if !tape.data}
  <Loading />
{:else}
  {#key segment.id}
    <Tape
      {siteId}
      {segment}
      tape={tape.data}
      chosen={typeof chosen === 'number' ? chosen : 0}
      proposed={proposed ? [proposed] : []}
      plant={mayWork ? plant : undefined}
    />
  {/key}
{/if}
{#if chosen === 'new' && mayWork}
  {#key segment.id}<NewEndpoint {siteId} {segment} onpropose={(place) => (proposed = place)} />{/key}
{:else}
  <div class="mt-5 grid gap-8 lg:grid-cols-2">
    <div class="min-w-0">
      {#if endpoint}
        <ChangeEndpoint {endpoint} {mayWork} />
      {:else if mayWork}
        <h2>Add an endpoint</h2>
        <p class="quiet mt-1 mb-3">Say what it is; the address is proposed, with the reason.</p>
        <div class="flex flex-wrap gap-2">
          <button class="btn btn-primary" onclick={() => go(at(siteId, 'plan', 'new'))}
            >New endpoint <kbd>n</kbd></button
          >
          <a class="btn btn-outline btn-primary" href={at(siteId, 'plan', 'many')}>Many at once</a>
        </div>
      {:else}
        <h2>You are looking on</h2>
        <p class="quiet mt-1">The office sees the plan and the proof; a technician changes them.</p>
      {/if}
      <div class="mt-6">
        <Lately {siteId} endpointId={endpoint?.data.id} most={endpoint ? 6 : 4} />
      </div>
    </div>
    <MendList {siteId} {mayWork} most={5} />
  </div>
{/if}
