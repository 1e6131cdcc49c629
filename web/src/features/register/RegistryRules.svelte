<script lang="ts">
  import type { Problem, Schemas } from '../../api/client';
  import TextField from '../../ui/TextField.svelte';
  import type { TypedRules } from './registryRules';
  import { FACTS } from './states';

  /** What a registry holds of a unit and what it asks for. */
  let {
    rules = $bindable(),
    forms,
    problem,
  }: { rules: TypedRules; forms: Schemas['FormView'][]; problem: Problem | null } = $props();
</script>

<div>
  <label class="field-label" for="registry-form">Form of its list</label>
  <select id="registry-form" class="select w-full" bind:value={rules.form}>
    {#each forms as form (form.form)}<option value={form.form}>{form.words}</option>{/each}
  </select>
</div>
<fieldset class="sm:col-span-2">
  <legend class="field-label">What it holds of a unit</legend>
  <div class="flex flex-wrap gap-x-5 gap-y-1">
    {#each ['MAC', 'NAME', 'ADDRESS', 'SERIAL', 'MODEL'] as const as fact (fact)}<label
        class="flex items-center gap-2"
        ><input type="checkbox" class="size-4" value={fact} bind:group={rules.facts} />{FACTS[fact]}</label
      >{/each}
  </div>
</fieldset>
<div>
  <label class="field-label" for="registry-naming">Names there are</label>
  <select id="registry-naming" class="select w-full" bind:value={rules.naming}>
    <option value="HOST_NAME">host names</option>
    <option value="WORDS">any words</option>
  </select>
</div>
<TextField
  label="Most characters of a name"
  bind:value={rules.longestName}
  error={problem?.field('longestName')}
  mono
/>
<div>
  <label class="field-label" for="registry-lifetime-unit">How long an entry lasts</label>
  <div class="flex gap-2">
    <input
      class="input w-24 font-mono {problem?.field('lifetime') ? 'input-error' : ''}"
      aria-label="Amount"
      inputmode="numeric"
      disabled={!rules.lifetimeUnit}
      bind:value={rules.lifetime}
    />
    <select id="registry-lifetime-unit" class="select w-full" bind:value={rules.lifetimeUnit}>
      <option value="">for good</option>
      <option value="HOURS">hours, to the minute</option>
      <option value="DAYS">days, to the end of the day</option>
    </select>
  </div>
  {#if problem?.field('lifetime')}<p class="mt-1 text-sm text-error">
      {problem.field('lifetime')}
    </p>{/if}
</div>
<TextField
  label="Most entries it takes"
  bind:value={rules.most}
  error={problem?.field('most')}
  hint="Empty for no limit"
  mono
/>
<TextField
  label="Who enters it, when not you"
  bind:value={rules.waitsFor}
  error={problem?.field('waitsFor')}
  hint="Such as the network provider"
/>
<TextField label="Days that takes" bind:value={rules.leadDays} error={problem?.field('leadDays')} mono />
<TextField
  label="Exact models it takes"
  bind:value={rules.models}
  error={problem?.field('models')}
  hint="Parted by commas; empty for any"
/>
<div class="grid content-end gap-1 pb-2">
  <label class="flex items-center gap-2"
    ><input type="checkbox" class="size-4" bind:checked={rules.restart} />Joins only after a restart</label
  >
  <label class="flex items-center gap-2"
    ><input type="checkbox" class="size-4" bind:checked={rules.ownerNeeded} />Every entry has an owner</label
  >
  <label class="flex items-center gap-2"
    ><input
      type="checkbox"
      class="size-4"
      checked={rules.sharing === 'BY_KIND'}
      onchange={(e) => (rules.sharing = e.currentTarget.checked ? 'BY_KIND' : 'NONE')}
    />Entries are shared with those who use them</label
  >
</div>
