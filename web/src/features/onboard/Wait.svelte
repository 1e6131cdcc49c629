<script lang="ts">
  import type { Schemas } from '../../api/client';
  import { serverClock } from '../../ui/now.svelte';
  import { minutes } from '../../ui/time';

  let { step, restarted }: { step: Schemas['StepView']; restarted?: () => void } = $props();
  const WORDS = {
    TOO_EARLY: 'Too early to judge. Go on with another device meanwhile.',
    USUAL: 'Within the usual time.',
    LATE: 'Longer than usual, not yet too long.',
    TOO_LONG: 'Longer than it ever takes. Look at it now.',
    CLOCK_SET_BACK:
      'The clock here was set back since it began, so nobody can say how long it ran. Look at it, or start it anew.',
  };
  const wait = $derived(step.waiting);
  const past = $derived(step.startedAt ? serverClock.minutesSince(step.startedAt) : 0);
  const part = $derived(wait ? Math.max(0, Math.min(100, (past / Math.max(wait.longest, 1)) * 100)) : 0);
  const alarming = $derived(wait?.verdict === 'LOOK' || wait?.verdict === 'CALL');
</script>

{#if wait}
  <div class="mt-5 max-w-lg">
    {#if step.startedAt}
      <p class="flex items-baseline gap-3">
        <span class="font-mono text-4xl font-semibold" role="timer"
          >{wait.pace === 'CLOCK_SET_BACK' ? '?' : minutes(past)}</span
        ><span class="quiet">of usually {minutes(wait.usual)}</span>
      </p>
      <p class="mt-1" role="status">{WORDS[wait.pace ?? 'TOO_EARLY']}</p>
      {#if wait.words && wait.words !== WORDS[wait.pace ?? 'TOO_EARLY']}
        <p class="mt-1 {alarming ? 'font-semibold text-error' : ''}">{wait.words}</p>
      {/if}
      {#if wait.countsRestarts && restarted && !step.endedAt}
        <p class="mt-2 flex items-center gap-3">
          <button type="button" class="btn btn-outline btn-primary btn-sm" onclick={restarted}
            >It restarted once more</button
          >
          <span>counted: <span class="font-mono text-lg font-semibold">{wait.restarts}</span></span>
        </p>
      {/if}
    {/if}
    <svg class="mt-3 block h-8 w-full" viewBox="0 0 100 8" preserveAspectRatio="none" aria-hidden="true">
      <path d="M0 4H100" stroke="var(--color-base-300)" stroke-width="1.2" />
      <path d="M0 4H{part}" stroke="var(--color-accent)" stroke-width="2" />
      <path
        d="M{(wait.shortest / wait.longest) * 100} 1V7M{(wait.usual / wait.longest) * 100} 1V7"
        stroke="var(--color-base-content)"
        stroke-width="0.4"
      />
    </svg>
    <p class="quiet text-sm">
      Shortest {minutes(wait.shortest)}, usual {minutes(wait.usual)}, longest {minutes(wait.longest)}. Look
      for: {wait.lookFor}.
    </p>
  </div>
{/if}
