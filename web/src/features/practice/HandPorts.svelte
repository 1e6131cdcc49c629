<script lang="ts">
  import type { Schemas } from '../../api/client';

  /** The front of a switch: each port with its cable, its light and its tape. */
  let { ports, choose }: { ports: Schemas['HandTaskView']['ports']; choose?: (port: number) => void } =
    $props();
  const LOOKS = {
    LIT: 'cable, light on',
    DARK: 'cable, light off',
    KEPT: 'empty, with a tape',
    FREE: 'empty',
  };
</script>

<ol class="grid max-w-xl grid-cols-6 gap-2" aria-label="The front of the switch">
  {#each ports as port, i (i)}
    <li>
      <button
        class="block w-full rounded border border-base-content/60 bg-base-200 p-1 enabled:hover:bg-base-300"
        disabled={!choose}
        aria-label="Port {i + 1}: {LOOKS[port]}"
        onclick={() => choose?.(i + 1)}
      >
        <span class="font-mono text-sm">{i + 1}</span>
        <svg viewBox="0 0 60 62" class="mx-auto block w-full max-w-14" aria-hidden="true">
          <circle
            cx="52"
            cy="8"
            r="5"
            fill={port === 'LIT' ? 'var(--color-success)' : 'none'}
            stroke="var(--color-base-content)"
          />
          <rect
            x="10"
            y="16"
            width="40"
            height="24"
            fill="none"
            stroke="var(--color-base-content)"
            stroke-width="2"
          />
          {#if port === 'LIT' || port === 'DARK'}
            <path d="M16 20h28v16H16zM26 36h8v26h-8z" fill="var(--color-base-content)" />
          {:else if port === 'KEPT'}
            <path d="M4 44h52v12H4z" fill="var(--color-tag, #f0dab0)" stroke="var(--color-base-content)" />
            <path d="M9 50h34" stroke="var(--color-base-content)" stroke-width="1.5" stroke-dasharray="6 3" />
          {/if}
        </svg>
      </button>
    </li>
  {/each}
</ol>
<p class="quiet mt-2 text-sm">
  Choose the port. A round light is on when it is filled; a strip below is a tape with a name.
</p>
