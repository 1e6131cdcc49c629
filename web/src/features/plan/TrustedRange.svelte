<script lang="ts">
  import { api, ok, type Schemas } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import ReadField from '../../ui/ReadField.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { readAddress } from '../../api/readers';

  let { siteId, segments }: { siteId: number; segments: Schemas['SheetSegment'][] } = $props();
  let segmentId = $state(0);
  const f = $state({ from: '', to: '' });
  let view = $state<Schemas['TrustView'] | null>(null);
  const change = useChange();
  const problem = $derived(change.problem);
  const chosen = $derived(segmentId || (segments[0]?.id ?? 0));

  async function look(e: SubmitEvent) {
    e.preventDefault();
    view = null;
    await change.run(async () => {
      view = await ok(
        api.POST('/api/sites/{siteId}/segments/{segmentId}/trusted-range', {
          params: { path: { siteId, segmentId: chosen } },
          body: { ...f },
        }),
      );
    });
  }
</script>

<p class="quiet">
  A device is told to trust a whole range? See what that lets in, and the single hosts that do as well.
</p>
<form onsubmit={look} class="mt-3 grid gap-x-4 sm:grid-cols-2">
  {#if segments.length > 1}
    <div class="mb-2 sm:col-span-2">
      <label class="field-label" for="trust-segment">Segment</label>
      <select
        id="trust-segment"
        class="select w-full"
        value={chosen}
        onchange={(e) => ((segmentId = Number(e.currentTarget.value)), (view = null))}
      >
        {#each segments as s (s.id)}<option value={s.id}>{s.name}, {s.prefix}</option>{/each}
      </select>
    </div>
  {/if}
  <ReadField
    label="From"
    bind:value={f.from}
    read={readAddress('RESOLVER', { segmentId: chosen })}
    error={problem?.field('from')}
  />
  <ReadField
    label="to"
    bind:value={f.to}
    read={readAddress('RESOLVER', { segmentId: chosen })}
    error={problem?.field('to')}
  />
  <button class="btn justify-self-start btn-primary">Shrink it</button>
</form>
<Trouble problem={problem?.errors.length ? null : problem} />
{#if view}
  <div role="status" class="mt-4">
    <p>
      It trusts {view.count} addresses, <span class="font-mono text-sm">{view.prefixes.join(', ')}</span>.
    </p>
    <ul class="mt-2 grid gap-1">
      {#each view.warnings as warning (warning)}<li class="caution">{warning}</li>{/each}
    </ul>
    <h3 class="mt-3 font-bold">
      {view.keep.length ? `Trust these ${view.keep.length} instead` : 'Nobody on record needs it'}
    </h3>
    <ul class="font-mono text-sm">
      {#each view.keep as host (host)}<li>{host}</li>{/each}
    </ul>
    <p class="quiet mt-1">{view.removed} addresses lose a trust that they do not need.</p>
  </div>
{/if}
