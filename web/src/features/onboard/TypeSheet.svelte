<script lang="ts">
  import Phone from '@lucide/svelte/icons/phone';
  import { api, ok, type Schemas } from '../../api/client';
  import Figures from '../../ui/Figures.svelte';
  import ReadField from '../../ui/ReadField.svelte';
  import TextField from '../../ui/TextField.svelte';
  import { readAddress } from '../../api/readers';

  let {
    rows,
    endpointId,
    part = '',
  }: { rows: Schemas['SheetRow'][]; endpointId: number; part?: string } = $props();
  // Over the phone the words stand under the figures, and what the listener repeats is keyed in and scored.
  let dictating = $state(false);
  let repeated = $state<Record<string, string>>({});
  let score = $state<Schemas['CallSheet'] | null>(null);
  const purpose = (field: string) =>
    field === 'MASK' ? 'MASK' : field === 'GATEWAY' ? 'GATEWAY' : 'RESOLVER';

  $effect(() => {
    const said = { ...repeated };
    if (!dictating) return;
    const timer = setTimeout(async () => {
      try {
        score = await ok(
          api.POST('/api/endpoints/{id}/runbook/call-sheet', {
            params: { path: { id: endpointId } },
            body: { repeated: said, part },
          }),
        );
      } catch {
        score = null; // unreachable for the moment; the fields still say what they read
      }
    }, 200);
    return () => clearTimeout(timer);
  });
</script>

<div class="mb-1 flex flex-wrap items-center gap-3">
  <button
    type="button"
    class="btn btn-ghost px-2 btn-sm"
    aria-pressed={dictating}
    onclick={() => ((dictating = !dictating), (repeated = {}), (score = null))}
    ><Phone size={16} aria-hidden="true" />{dictating
      ? 'Enter it yourself'
      : 'Dictate it over the phone'}</button
  >
  {#if dictating}<p class="text-sm" role="status">
      {score && score.right === score.of
        ? 'All repeated rightly. Now read back what the device shows.'
        : `Key in what is repeated: ${score?.right ?? 0} of ${score?.of ?? 0} right`}
    </p>{/if}
</div>
<dl class="border-t-2 border-base-content">
  {#each rows as row (row.label)}
    <div class="grid items-baseline border-b border-base-300 py-1.5 sm:grid-cols-[9rem_1fr]">
      <dt class="quiet">{row.label}</dt>
      <dd>
        {#if row.figures && row.value}
          <Figures value={row.value} class="text-[clamp(1.6rem,5.5vw,2.3rem)] leading-tight font-semibold" />
          {#if row.leaveAlone}<span class="quiet ml-2">leave as it is</span>{/if}
          {#if dictating}
            <p class="text-lg">{row.spoken.join(' point ')}</p>
            <div class="max-w-xs">
              <ReadField
                label="{row.label} as it was repeated"
                bind:value={() => repeated[row.field] ?? '', (v) => (repeated[row.field] = v)}
                read={readAddress(purpose(row.field), { endpointId, expected: row.value })}
              />
            </div>
          {/if}
        {:else if row.figures || !row.value}
          <span class="text-lg"
            >{row.leaveAlone
              ? 'leave as it is'
              : row.figures
                ? 'leave it empty'
                : 'nothing is planned: leave as it is'}</span
          >
        {:else}
          <span class="text-xl font-semibold">{row.value}</span>
          {#if row.leaveAlone}<span class="quiet ml-2">leave as it is</span>{/if}
          {#if dictating && row.spoken.length}
            <p class="text-lg">{row.spoken.join(' ')}</p>
            <div class="max-w-xs">
              <TextField
                label="{row.label} as it was repeated"
                bind:value={() => repeated[row.field] ?? '', (v) => (repeated[row.field] = v)}
                error={score?.fields.find((f) => f.field === row.field)?.message || undefined}
              />
            </div>
          {/if}
        {/if}
      </dd>
    </div>
  {/each}
</dl>
