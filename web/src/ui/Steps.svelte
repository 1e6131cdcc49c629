<script
  lang="ts"
  generics="T extends { key: string; title: string; status: Schemas['StationView']['status']; note?: string; meta?: string; bad?: boolean }"
>
  import type { Schemas } from '../api/client';
  import Knot from './Knot.svelte';

  let {
    steps,
    current,
    choose,
    label,
  }: { steps: T[]; current: string | null; choose?: (key: string) => void; label: string } = $props();
</script>

{#snippet body(step: T)}
  <Knot state={step.status} vertical />
  <span class="min-w-0 flex-1 text-left">
    <span class="block leading-snug">{step.title}</span>
    {#if step.note}<span class="block text-sm leading-snug font-normal {step.bad ? 'text-error' : 'quiet'}"
        >{step.note}</span
      >{/if}
    {#if step.meta}<span class="quiet block text-xs leading-snug font-normal">{step.meta}</span>{/if}
  </span>
{/snippet}

<ol class="steps-line" aria-label={label}>
  {#each steps as step (step.key)}
    <li class="relative pb-2.5" data-step={step.key}>
      {#if choose}
        <button
          class="flex w-full gap-2.5 rounded pr-2 hover:bg-base-200 {step.meta
            ? 'items-start'
            : 'items-center'} {step.key === current ? 'font-bold' : 'quiet'}"
          aria-current={step.key === current ? 'step' : undefined}
          onclick={() => choose(step.key)}>{@render body(step)}</button
        >
      {:else}
        <div class="flex items-start gap-2.5 {step.key === current ? 'font-bold' : ''}">
          {@render body(step)}
        </div>
      {/if}
    </li>
  {/each}
</ol>

<style>
  /* The cable between two knots. */
  li:not(:last-child)::after {
    content: '';
    position: absolute;
    left: 12.8px;
    top: 27px;
    bottom: -1px;
    border-left: 2.4px solid color-mix(in oklch, var(--color-secondary) 55%, transparent);
  }
  li:has(:global([data-knot='PASSED']))::after {
    border-color: var(--color-success);
  }
</style>
