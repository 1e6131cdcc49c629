<script lang="ts">
  import type { Read } from '../api/onDevice';

  let {
    label,
    value = $bindable(''),
    read,
    error,
    hint,
    autofocus = false,
    required = false,
    disabled = false,
    known,
    onchange,
    onreading,
  }: {
    label: string;
    value?: string;
    read: (text: string, signal: AbortSignal) => Promise<Read>;
    error?: string;
    hint?: string;
    autofocus?: boolean;
    required?: boolean;
    disabled?: boolean;
    /** What stands on record already and need not be read to anybody again. */
    known?: string;
    onchange?: () => void;
    onreading?: (reading: Read | null) => void;
  } = $props();

  const id = $props.id();
  let reading = $state<Read | null>(null);
  let input = $state<HTMLInputElement>();
  const finding = $derived(reading?.findings[0]);
  const warned = $derived(!!reading?.usable && !reading.slip);
  const wrong = $derived((!!reading && !warned && (!!finding || !!reading.slip)) || (!!error && !warned));

  // Reads what was typed as soon as the hand rests.
  $effect(() => {
    const text = value;
    const abort = new AbortController();
    const timer = setTimeout(async () => {
      try {
        reading = text.trim() && text !== known ? await read(text, abort.signal) : null;
        onreading?.(reading);
      } catch {
        reading = null; // unreachable for the moment; saving will say so
      }
    }, 180);
    return () => {
      clearTimeout(timer);
      abort.abort();
    };
  });

  $effect(() => {
    if (autofocus) input?.focus();
  });
</script>

<div>
  <label class="field-label" for={id}>{label}</label>
  <input
    bind:this={input}
    {id}
    class="input w-full font-mono text-[17px] {wrong ? 'input-error' : ''}"
    bind:value
    {required}
    {disabled}
    {onchange}
    autocomplete="off"
    autocapitalize="off"
    spellcheck="false"
    aria-invalid={wrong}
    aria-describedby="{id}-said"
  />
  <div id="{id}-said" class="mt-1 min-h-6 text-sm" aria-live="polite">
    {#if error && !finding && !reading?.slip}<p class="text-error">{error}</p>{/if}
    {#if finding}
      <p class={warned ? 'caution' : 'text-error'}>{finding.message}</p>
      {#if finding.candidates.length}
        <p class="mt-1 flex flex-wrap gap-2">
          {#each finding.candidates.slice(0, 3) as candidate (candidate)}
            <button
              type="button"
              class="btn btn-outline font-mono btn-primary btn-sm"
              onclick={() => {
                value = candidate;
                input?.focus();
              }}>{candidate}</button
            >
          {/each}
        </p>
      {/if}
    {:else if reading?.slip}<p class="text-error">{reading.slip.message}</p>
    {:else if reading?.notes.length}
      <p class="quiet">{reading.notes.map((n) => n.message).join(' ')}</p>
    {:else if reading?.value}<p class="text-success">
        Reads as <span class="font-mono">{reading.value}</span>
      </p>
    {:else if hint && !error}<p class="quiet">{hint}</p>{/if}
    {#if reading?.here && reading.value}<p class="quiet">
        Read on this device, without what is on record.
      </p>{/if}
  </div>
</div>
