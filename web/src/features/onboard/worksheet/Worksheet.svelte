<script lang="ts">
  import { useQueryClient } from '@tanstack/svelte-query';
  import { untrack } from 'svelte';
  import { network } from '../../../api/answers.svelte';
  import { api, asProblem, ok, type Schemas } from '../../../api/client';
  import { useChange } from '../../../api/change.svelte';
  import { outbox, type FilledHere } from '../../../api/outbox.svelte';
  import { kept } from '../../../ui/kept.svelte';
  import Trouble from '../../../ui/Trouble.svelte';
  import Judged from './Judged.svelte';
  import { filledKey, keepFigures, type Owner } from './queries';
  import SheetInput from './SheetInput.svelte';
  import SheetRows from './SheetRows.svelte';

  /** A worksheet to be filled in; it is judged while it is keyed in, and kept by whoever holds it. */
  let {
    sheet,
    filled,
    owner,
    device,
    mayWork,
  }: {
    sheet: Schemas['WorksheetView'];
    filled?: FilledHere;
    owner: Owner;
    /** Where the figures are kept on this device while nobody can be reached. */
    device?: Pick<Schemas['EndpointView'], 'siteId' | 'id' | 'name'>;
    mayWork: boolean;
  } = $props();
  const client = useQueryClient();
  const change = useChange();
  const name = untrack(() => `worksheet-${filledKey(owner).join('-')}-${sheet.key}`);
  const typed = untrack(() => kept<Record<string, string>>(name, { ...filled?.figures }));
  const figures = typed.value;
  let judged = $state<Schemas['JudgementView']>();
  let unreached = $state(false);
  const changed = $derived(JSON.stringify(figures) !== JSON.stringify({ ...filled?.figures }));
  // What a figure that was read does to the sum stands beside the sum; the field is only marked.
  const summed = $derived(!!judged?.judgement.results.length);
  const stops = (path: string) =>
    judged?.judgement.findings.find((f) => f.field === path && f.weight === 'STOPS' && f.code !== 'MISSING');
  const error = (path: string) =>
    change.problem?.errors.find((e) => e.pointer === '/figures/' + path)?.message ??
    (summed ? undefined : stops(path)?.message);
  const wrong = (path: string) => summed && !!stops(path);

  $effect(() => {
    const said = { ...figures, ...filled?.counted };
    // Worked out anew once the server can be reached again.
    void network.down;
    const timer = setTimeout(async () => {
      try {
        judged = await ok(
          api.POST('/api/worksheets/{key}/judgement', {
            params: { path: { key: sheet.key } },
            body: { figures: said },
          }),
        );
        unreached = false;
      } catch (error) {
        // What was worked out from other figures says nothing about these; keeping them says what is wrong.
        judged = undefined;
        unreached = asProblem(error).status === 0;
      }
    }, 150);
    return () => clearTimeout(timer);
  });

  /** Keeps what was keyed in, if anything was; returns whether it is on record now. */
  export async function save(): Promise<boolean> {
    if (!changed && (filled?.version || filled?.waits)) return true;
    const said = { ...figures };
    const taken = await change.run(async () => {
      const now = await keepFigures(owner, sheet.key, filled?.version ?? 0, said);
      typed.forget();
      client.setQueryData(filledKey(owner), now);
    });
    if (taken || change.problem?.status !== 0 || !device) return taken;
    const { key, title, fields } = sheet;
    const cells = fields.flatMap((f) => [f, ...f.columns.map((c) => ({ ...c, key: `${f.key}/${c.key}` }))]);
    const names = Object.fromEntries(
      cells.flatMap((f) => [[f.key, f.label], ...f.picks.map((p) => [`${f.key}=${p.value}`, p.label])]),
    );
    await outbox.note(device, {
      what: 'sheet',
      key,
      title,
      figures: said,
      was: { ...filled?.figures },
      names,
    });
    typed.forget();
    change.clear();
    return true;
  }
</script>

<div class="@container">
  <div class="grid gap-x-8 gap-y-4 @4xl:grid-cols-2">
    <fieldset class="grid content-start gap-x-4 gap-y-3 @md:grid-cols-2" disabled={!mayWork}>
      <legend class="sr-only">{sheet.title}</legend>
      {#each sheet.fields as field (field.key)}
        {#if field.form === 'ROWS'}<SheetRows {field} {figures} {error} {wrong} />
        {:else}<SheetInput
            {field}
            bind:value={() => figures[field.key] ?? '', (v) => (figures[field.key] = v)}
            error={error(field.key)}
            wrong={wrong(field.key)}
            counted={filled?.counted[field.key]}
          />{/if}
      {/each}
    </fieldset>
    <div class="min-w-0">
      {#if judged}<Judged judgement={judged.judgement} holds={judged.holds} />
      {:else if unreached}<p class="caution" role="status">
          Knot Tag cannot be reached just now: what comes of these figures is worked out when it can.
        </p>{/if}
      {#if filled?.waits}<p class="mt-2">Kept on this device, and not sent yet.</p>{/if}
    </div>
  </div>
</div>
<Trouble problem={change.problem?.errors.length ? null : change.problem} />
