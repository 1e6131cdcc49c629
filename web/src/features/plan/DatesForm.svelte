<script lang="ts">
  import { untrack } from 'svelte';
  import { api, ok } from '../../api/client';
  import DateStyles from './DateStyles.svelte';
  import SheetForm from '../../ui/SheetForm.svelte';
  import { sheetChange, type SheetAnswer } from '../../ui/sheetChange.svelte';

  /** A lead chooses how days and times are written at the site, for everybody who works on it. */
  let { sheet, done }: { sheet: SheetAnswer; done: () => void } = $props();
  const change = sheetChange({ sheet: () => sheet, done: () => done() });
  let dates = $state(untrack(() => sheet.data.site.dates));
  const save = () =>
    void change.run((params) => ok(api.PUT('/api/sites/{siteId}/dates', { params, body: { dates } })));
</script>

<SheetForm {change} label="Keep the change" {save}>
  <DateStyles bind:value={dates} />
  <p class="quiet self-end text-sm">
    So they are shown to everybody who works on this site, and so they are read when somebody types them.
  </p>
</SheetForm>
