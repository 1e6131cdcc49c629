<script lang="ts">
  import type { Schemas } from '../../api/client';
  import ReadField from '../../ui/ReadField.svelte';
  import TextField from '../../ui/TextField.svelte';
  import TimeField from '../../ui/TimeField.svelte';
  import { readAddress } from '../../api/readers';
  import SiteClock from './SiteClock.svelte';

  /** What a gate asks to be keyed in, in its own order; what it means is judged by the server. */
  let {
    inputs,
    evidence = $bindable(),
    findings,
  }: {
    inputs: Schemas['Input'][];
    evidence: Record<string, string>;
    findings: Schemas['StepFinding'][];
  } = $props();
  const PURPOSES: Record<string, 'MASK' | 'RESOLVER'> = { MASK: 'MASK' };
  const finding = (field: string) => findings.find((f) => f.field === field)?.message;
  const text = (field: string) => ({
    get value() {
      return evidence[field] ?? '';
    },
    set value(v: string) {
      evidence[field] = v;
    },
  });
  // A day in the past is only asked for once something is wrong.
  const asked = $derived(
    inputs.filter((i) => i.form !== 'TICK' && (i.form !== 'DAY' || findings.length > 0)),
  );
  const ticks = $derived(inputs.filter((i) => i.form === 'TICK'));
</script>

{#if ticks.length}
  <fieldset>
    <legend class="sr-only">What is there</legend>
    {#each ticks as i (i.field)}
      <label class="flex cursor-pointer items-center gap-3 rounded px-2 py-1.5 text-[17px] hover:bg-base-200"
        ><input
          type="checkbox"
          class="size-5"
          bind:checked={() => evidence[i.field] === 'true', (v) => (evidence[i.field] = String(v))}
        />{i.label}</label
      >
    {/each}
  </fieldset>
{/if}
{#each asked as i, n (i.field)}
  {@const field = text(i.field)}
  <div class="mt-3 max-w-md">
    {#if i.form === 'PICK'}
      <fieldset>
        <legend class="field-label">{i.label}</legend>
        <div class="flex flex-wrap gap-x-2 gap-y-1">
          {#each i.picks as pick (pick.value)}
            <label class="flex cursor-pointer items-center gap-2 rounded px-2 py-1.5 hover:bg-base-200"
              ><input
                type="radio"
                class="radio radio-primary"
                name={i.field}
                value={pick.value}
                bind:group={evidence[i.field]}
              />{pick.label}</label
            >
          {/each}
        </div>
        {#if finding(i.field)}<p class="text-sm text-error">{finding(i.field)}</p>{/if}
      </fieldset>
    {:else if i.form === 'FIGURES'}
      <ReadField
        label={i.label}
        bind:value={field.value}
        read={readAddress(PURPOSES[i.field] ?? 'RESOLVER')}
        error={finding(i.field)}
        autofocus={n === 0}
      />
    {:else if i.form === 'MOMENT'}
      <SiteClock />
      <TimeField
        label={i.label}
        bind:value={field.value}
        form="SHOWN"
        error={finding(i.field)}
        autofocus={n === 0}
      />
    {:else if i.form === 'DAY'}
      <TimeField label={i.label} bind:value={field.value} form="DAY" error={finding(i.field)} />
    {:else}
      <TextField
        label={i.label}
        bind:value={field.value}
        error={finding(i.field)}
        mode={i.form === 'NUMBER' ? 'numeric' : undefined}
        mono={i.form !== 'WORDS'}
        autofocus={n === 0 && i.form === 'CODE'}
      />
    {/if}
  </div>
{/each}
