<script lang="ts">
  import type { Schemas } from '../../api/client';

  /** A label as it is printed: small, a little crooked, and scratched. */
  let { lines }: { lines: Schemas['HandLabelLine'][] } = $props();
</script>

<svg viewBox="0 0 420 150" class="block w-full max-w-md" role="img" aria-label="The label of the device">
  <g transform="rotate(-1.5 210 75)">
    <rect x="8" y="10" width="404" height="130" rx="3" fill="#f4f1ea" stroke="#6b6458" />
    {#each lines as line, i (line.name)}
      <text x="24" y={48 + i * 36} font-size="14" fill="#3a362f" class="font-sans">{line.name}</text>
      <text x="120" y={48 + i * 36} font-size="19" fill="#1c1a17" font-family="monospace" class="select-none"
        >{line.text}</text
      >
    {/each}
    <path d="M20 122 180 26M250 130 400 60" stroke="#8d8577" stroke-width=".8" fill="none" />
  </g>
</svg>
