<script lang="ts">
  import type { Schemas } from '../api/client';

  type State = Schemas['StationView']['status'];
  let { state, size = 28, vertical = false }: { state: State; size?: number; vertical?: boolean } = $props();

  const WORDS: Record<State, string> = {
    PENDING: 'not done',
    ACTIVE: 'under way',
    PASSED: 'holds',
    FAILED: 'failed',
    SKIPPED: 'left out',
  };
  const COLOURS: Record<State, string> = {
    PENDING: 'text-secondary',
    ACTIVE: 'text-accent',
    PASSED: 'text-success',
    FAILED: 'text-error',
    SKIPPED: 'text-secondary',
  };
</script>

<!-- Drawn apart for a standing line: a turned loop would hang to one side of it. -->
<svg
  class="knot block shrink-0 {COLOURS[state]}"
  width={size}
  height={size}
  viewBox="0 0 28 28"
  fill="none"
  stroke="currentColor"
  stroke-width="2.4"
  stroke-linecap="round"
  role="img"
  aria-label={WORDS[state]}
  data-knot={state}
>
  {#if state === 'PASSED'}
    {#if vertical}<path d="M14 2V8M14 20V26" />{:else}<path d="M2 14H8M20 14H26" />{/if}
    <path
      fill="currentColor"
      d="M8 14c0-5 3-6.500 6-6.500s6 1.500 6 6.500-3 6.500-6 6.500-6-1.500-6-6.500z"
    />
    <path class="knot-lay" stroke-width="1.7" d="M10.800 10.600L15.400 18.600M13.600 8.800L18 16" />
  {:else if state === 'FAILED'}
    {#if vertical}
      <path d="M14 2V9M14 9L9.500 13M14 9V14M14 9L18.500 13M14 26V20M14 20L10.500 17M14 20L17.500 17" />
    {:else}
      <path d="M2 14H9M9 14L13 9.500M9 14H14M9 14L13 18.500M26 14H20M20 14L17 10.500M20 14L17 17.500" />
    {/if}
  {:else if state === 'SKIPPED'}
    {#if vertical}
      <path d="M14 2V7M14 21V26" /><path stroke-dasharray="2.500 3.600" d="M14 7C21.500 9 21.500 19 14 21" />
    {:else}
      <path d="M2 14H7M21 14H26" /><path stroke-dasharray="2.500 3.600" d="M7 14C9 21.500 19 21.500 21 14" />
    {/if}
  {:else if vertical}
    <path d="M14 2V9C14 15 16 19 20.500 19C24.500 19 24.500 9.500 20.500 9.500" />
    <path
      stroke-dasharray={state === 'ACTIVE' ? '.1 4.4' : undefined}
      d="M20.500 9.500C16 9.500 14 13 14 19V26"
    />
  {:else}
    <path d="M2 17H9C15 17 19 15 19 10.500C19 6.500 9.500 6.500 9.500 10.500" />
    <path
      stroke-dasharray={state === 'ACTIVE' ? '.1 4.4' : undefined}
      d="M9.500 10.500C9.500 15 13 17 19 17H26"
    />
  {/if}
</svg>

<style>
  .status-lay {
    stroke: var(--color-base-100);
  }
</style>
