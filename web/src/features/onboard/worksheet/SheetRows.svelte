<script lang="ts">
  import Plus from '@lucide/svelte/icons/plus';
  import X from '@lucide/svelte/icons/x';
  import type { Schemas } from '../../../api/client';
  import SheetInput from './SheetInput.svelte';

  /** Rows of the same columns, such as the drives on the bench. */
  let {
    field,
    figures,
    error,
    wrong,
  }: {
    field: Schemas['SheetField'];
    figures: Record<string, string>;
    error: (path: string) => string | undefined;
    wrong: (path: string) => boolean;
  } = $props();
  const number = (path: string) => Number(path.slice(field.key.length + 1).split('/')[0]);
  const there = $derived(
    [
      ...new Set(
        Object.keys(figures)
          .filter((p) => p.startsWith(field.key + '/'))
          .map(number),
      ),
    ].sort((a, b) => a - b),
  );
  const rows = $derived(there.length ? there : [0]);
  const path = (row: number, column: string) => `${field.key}/${row}/${column}`;

  function drop(row: number) {
    for (const column of field.columns) Reflect.deleteProperty(figures, path(row, column.key));
  }
  /** The next row begins as the one above it, but for its name: several of the same are the rule. */
  function add() {
    const last = rows.at(-1) ?? 0;
    for (const column of field.columns) {
      const above = (figures[path(last, column.key)] ??= '');
      figures[path(last + 1, column.key)] = column.form === 'WORDS' ? '' : above;
    }
  }
</script>

<fieldset class="@md:col-span-2">
  <legend class="mb-1 text-base font-bold">{field.label}</legend>
  <div class="grid gap-2">
    {#each rows as row, n (row)}
      <div
        class="row grid items-end gap-x-3 gap-y-1 border-b border-base-300 pb-2 @md:border-0 @md:pb-0"
        style:--columns={field.columns.length}
      >
        {#each field.columns as column (column.key)}
          <div class={n ? '@md:[&_.field-label]:sr-only' : ''}>
            <SheetInput
              field={{ ...column, hint: '', usual: column.form === 'PICK' ? column.usual : '' }}
              bind:value={
                () => figures[path(row, column.key)] ?? '', (v) => (figures[path(row, column.key)] = v)
              }
              error={error(path(row, column.key))}
              wrong={wrong(path(row, column.key))}
            />
          </div>
        {/each}
        <button
          type="button"
          class="btn btn-square btn-ghost btn-sm @md:mb-1"
          disabled={rows.length <= 1}
          onclick={() => drop(row)}
          ><X size={16} aria-hidden="true" /><span class="sr-only">Take out row {n + 1}</span></button
        >
      </div>
    {/each}
  </div>
  {#if error(field.key)}<p class="mt-1 text-sm text-error">{error(field.key)}</p>{/if}
  {#if rows.length < field.most}
    <button type="button" class="btn mt-1 btn-ghost px-2 btn-sm" onclick={add}
      ><Plus size={16} aria-hidden="true" />Add another</button
    >
  {/if}
</fieldset>

<style>
  @container (min-width: 28rem) {
    .row {
      grid-template-columns: repeat(var(--columns), minmax(0, 1fr)) 2.5rem;
    }
  }
</style>
