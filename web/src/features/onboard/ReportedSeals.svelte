<script lang="ts">
  import { untrack } from 'svelte';
  import TextField from '../../ui/TextField.svelte';

  /** Seals and case as the office reported them, before the case is seen. */
  let {
    facts,
    keep,
  }: { facts: Record<string, string>; keep: (facts: Record<string, string>) => Promise<boolean> } = $props();
  let seals = $state(untrack(() => facts.seals ?? ''));
  let caseNumber = $state(untrack(() => facts['case-number'] ?? ''));
  let kept = $state(false);

  async function send(event: SubmitEvent) {
    event.preventDefault();
    kept = await keep({ seals, 'case-number': caseNumber });
  }
</script>

<details class="mb-5" open={!facts.seals}>
  <summary class="cursor-pointer font-semibold"
    >{facts.seals ? 'Seals and case were reported' : 'What did the office report?'}</summary
  >
  <form class="mt-2 grid gap-x-4 gap-y-2 sm:grid-cols-2" onsubmit={send}>
    <TextField label="Seals" bind:value={seals} mono hint="Numbers with blanks between" />
    <TextField label="Case" bind:value={caseNumber} mono />
    <button class="btn w-fit btn-outline btn-primary btn-sm">Keep it</button>
    <p role="status" class="text-sm">{kept ? 'Kept.' : ''}</p>
  </form>
</details>
