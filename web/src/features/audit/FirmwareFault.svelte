<script lang="ts">
  import { api, ok, type Schemas } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import Knot from '../../ui/Knot.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { at } from '../../router';

  /** A fault that is known, with the units that have it or of which it cannot be told. */
  let {
    siteId,
    fault: f,
    mayWork,
  }: { siteId: number; fault: Schemas['FirmwareFaultView']; mayWork: boolean } = $props();
  const change = useChange(() => [['site']]);
  const others = $derived(f.elsewhere.reduce((sum, s) => sum + s.concerned, 0));
  const groups = $derived(
    [...new Set(f.here.map((c) => c.words))].map((words) => ({
      words,
      of: f.here.filter((c) => c.words === words),
    })),
  );
  const forget = () =>
    change.run(() => ok(api.DELETE('/api/firmware-faults/{id}', { params: { path: { id: f.id } } })));
</script>

<li class="flex items-start gap-3 border-b border-base-300 py-3" data-fault={f.id}>
  <Knot
    state={f.here.some((c) => c.verdict === 'OLD') ? 'FAILED' : f.here.length ? 'ACTIVE' : 'PASSED'}
    size={26}
  />
  <div class="min-w-0 flex-1">
    <p class="text-[17px] font-semibold">
      {f.kind}{f.model ? ` ${f.model}` : ''} before {f.mendedIn}<span class="font-normal">: {f.what}</span>
    </p>
    {#each groups as g (g.words)}
      <p>
        <span class="font-semibold">{g.words}:</span>
        {#each g.of as c, i (c.unit.endpointId)}{i ? ', ' : ''}<a
            class="link"
            href={at(siteId, 'plan', c.unit.endpointId)}>{c.unit.name}</a
          >{c.unit.version ? ` (${c.unit.version})` : ''}{/each}
      </p>
    {/each}
    {#if others}
      <p class="quiet text-sm">
        At other sites {others}:
        {#each f.elsewhere.slice(0, 6) as s, i (s.siteId)}{i ? ', ' : ''}<a
            class="link"
            href={at(s.siteId, 'audit', 'firmware')}>{s.site}</a
          >
          {s.concerned}{/each}{f.elsewhere.length > 6 ? ` and ${f.elsewhere.length - 6} more sites` : ''}.
      </p>
    {/if}
    <p class="quiet text-sm">
      {f.mended ? `${f.mended} ${f.mended === 1 ? 'has' : 'have'} it no longer. ` : ''}Said by {f.by}.
    </p>
    {#if change.problem}<Trouble problem={change.problem} />{/if}
    {#if mayWork}<button class="btn mt-1 btn-ghost btn-sm" disabled={change.busy} onclick={forget}
        >It counts no longer</button
      >{/if}
  </div>
</li>
