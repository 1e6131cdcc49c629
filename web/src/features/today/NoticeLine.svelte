<script lang="ts">
  import type { Schemas } from '../../api/client';
  import Knot from '../../ui/Knot.svelte';
  import { whereTo } from './notices';

  /** One thing that waits for somebody, as a line. */
  let { n, when = '' }: { n: Schemas['NoticeView']; when?: string } = $props();
  const state = $derived(
    ['BROKEN', 'TOO_LONG', 'CUT_OFF'].includes(n.what)
      ? 'FAILED'
      : n.what === 'DUE' || n.what === 'NIGHT' || n.what === 'VISIT_AHEAD' || n.what === 'VISIT_LATE'
        ? 'PENDING'
        : 'ACTIVE',
  );
</script>

<li class="flex items-start gap-3 border-b border-base-300 py-2">
  <Knot {state} size={24} />
  <span class="min-w-0 flex-1">
    <a class="font-semibold hover:underline" href={whereTo(n)}>{n.title}</a>
    <span class="quiet block text-sm">{n.site}{n.who ? `, ${n.who}` : ''}. {n.detail}</span>
  </span>
  {#if when}<span class="shrink-0 font-mono text-sm">{when}</span>{/if}
</li>
