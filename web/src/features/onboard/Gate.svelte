<script lang="ts">
  import type { Schemas } from '../../api/client';
  import { readAddress } from '../../api/readers';
  import ReadField from '../../ui/ReadField.svelte';
  import TextField from '../../ui/TextField.svelte';
  import { purpose } from './readBack';
  import TypeSheet from './TypeSheet.svelte';

  /** What has to be chosen, entered or read at a step before it is done. */
  let {
    step,
    book,
    endpoint,
    evidence = $bindable(),
  }: {
    step: Schemas['StepView'];
    book: Schemas['RunbookView'];
    endpoint: { data: Schemas['EndpointView'] };
    evidence: Record<string, string>;
  } = $props();
  const e = $derived(endpoint.data);
  const type = $derived(step.gate.type);
  const readBack = $derived(book.readBack.filter((r) => r.part === step.gate.part));
  const first = $derived(readBack.findIndex((r) => r.needed));
  const finding = (field: string) => step.findings.find((f) => f.field === field);
</script>

{#if type === 'CHOICE'}
  <fieldset>
    <legend class="mb-2 text-[17px] font-semibold">{step.gate.ask}</legend>
    {#each step.gate.options as option, i (option.value)}
      <label class="flex cursor-pointer items-center gap-3 rounded px-2 py-2 text-[17px] hover:bg-base-200">
        <input
          type="radio"
          class="radio radio-primary"
          name="seen"
          value={option.value}
          bind:group={evidence.seen}
          required
        /><span class="flex-1">{option.label}</span><kbd>{i + 1}</kbd>
      </label>
    {/each}
  </fieldset>
{:else if type === 'TYPE_SHEET'}
  {#if book.learned.length && !step.gate.part}
    <ul class="mb-3" aria-label="What it was given, against the plan">
      {#each book.learned as l (l.field)}
        <li class={l.act === 'KEEP' ? 'quiet' : 'font-semibold'}>
          {l.field}: <span class="font-mono">{l.learned}</span>{l.act === 'KEEP'
            ? ', leave it'
            : `, change it to ${l.planned}`}. {l.reason}
        </li>
      {/each}
    </ul>
  {/if}
  <TypeSheet
    rows={book.sheet.filter((r) => r.part === step.gate.part)}
    part={step.gate.part}
    endpointId={e.id}
  />
{:else if type === 'READ_BACK'}
  <div class="grid gap-x-6 sm:grid-cols-2">
    {#each readBack as row, i (row.field)}
      {#if row.figures}
        <ReadField
          label={row.label}
          bind:value={() => evidence[row.field] ?? '', (v) => (evidence[row.field] = v)}
          read={readAddress(purpose(row.field), { endpointId: e.id, expected: row.value })}
          error={finding(row.field)?.message}
          autofocus={i === first}
        />
      {:else}
        <div class="mb-2">
          <TextField
            label={row.label}
            bind:value={() => evidence[row.field] ?? '', (v) => (evidence[row.field] = v)}
            error={finding(row.field)?.message}
            hint={row.needed ? undefined : row.leaveAlone ? 'As from the factory' : 'If it is shown'}
            autofocus={i === first}
          />
        </div>
      {/if}
    {/each}
  </div>
{:else if type === 'ADDRESS_SHOWN'}
  <ReadField
    label={step.gate.ask}
    bind:value={() => evidence.ADDRESS ?? '', (v) => (evidence.ADDRESS = v)}
    read={readAddress('ADDRESS', { endpointId: e.id, expected: e.address ?? undefined })}
    error={finding('ADDRESS')?.message}
  />
{/if}
