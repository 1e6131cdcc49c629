<script lang="ts">
  import FileField from '../../ui/FileField.svelte';
  import { useQueryClient } from '@tanstack/svelte-query';
  import { api, asProblem, bytes, ok, type Problem, type Schemas } from '../../api/client';
  import Trouble from '../../ui/Trouble.svelte';
  import IntakeReport from './IntakeReport.svelte';

  let {
    siteId,
    segments,
    mayWork,
  }: { siteId: number; segments: Schemas['SegmentView'][]; mayWork: boolean } = $props();
  type Source = 'SHEET' | 'HOSTS' | 'NEIGHBOURS' | 'LEASES';
  const SOURCES: [Source, string, string][] = [
    ['SHEET', 'Spreadsheet', 'CSV; the first line names the columns'],
    ['HOSTS', 'Hosts lines', 'Address and name, one a line'],
    ['NEIGHBOURS', 'Neighbour table', 'What a machine or switch shows of who is there'],
    ['LEASES', 'Lease list', 'What the DHCP server has lent'],
  ];
  const client = useQueryClient();
  let source = $state<Source>('SHEET');
  let make = $state(true);
  let home = $state(0);
  let text = $state('');
  let file = $state<File | null>(null);
  let columns = $state<Record<string, number>>({});
  let report = $state<Schemas['IntakeView'] | null>(null);
  let problem = $state<Problem | null>(null);
  let picker = $state<HTMLInputElement>();

  async function send(preview: boolean) {
    if (!file && !text.trim()) return;
    try {
      report = await ok(
        api.POST('/api/sites/{siteId}/intakes', {
          params: {
            path: { siteId },
            query: {
              source,
              preview,
              make,
              home: home || undefined,
              columns: Object.entries(columns)
                .map(([name, i]) => name + ':' + i)
                .join(','),
            },
          },
          ...bytes(file ?? new Blob([text])),
        }),
      );
      problem = null;
      if (!preview) await client.invalidateQueries({ queryKey: ['site', siteId] });
    } catch (error) {
      report = null;
      problem = asProblem(error);
    }
  }

  function changed() {
    columns = {};
    report = null;
  }
</script>

<h1>Bring in what is there</h1>
{#if !mayWork}<p class="mt-2">A technician brings lists in.</p>{:else}
  <form
    class="mt-3 grid gap-x-10 gap-y-4 lg:grid-cols-[minmax(0,26rem)_1fr]"
    onsubmit={(e) => {
      e.preventDefault();
      void send(true);
    }}
  >
    <div class="grid content-start gap-3">
      <fieldset class="grid gap-1">
        <legend class="field-label">What it is</legend>
        {#each SOURCES as [value, name, hint] (value)}
          <label class="flex items-baseline gap-2"
            ><input
              type="radio"
              class="radio translate-y-1 radio-sm"
              name="source"
              {value}
              bind:group={source}
              onchange={() => ((make = value === 'SHEET' || value === 'HOSTS'), changed())}
            /><span>{name} <span class="quiet text-sm">{hint}</span></span></label
          >
        {/each}
      </fieldset>
      <div>
        <label class="field-label" for="intake-text">Paste it here</label>
        <textarea
          id="intake-text"
          class="textarea h-44 w-full font-mono text-sm leading-snug"
          spellcheck="false"
          placeholder={source === 'SHEET'
            ? 'Name;Address;MAC;Room\nCopier;10.44.16.40;00:00:5E:00:53:40;Hall'
            : '10.44.16.40  copier'}
          bind:value={text}
          oninput={() => ((file = null), changed(), picker && (picker.value = ''))}
        ></textarea>
        <div class="mt-2">
          <FileField
            label="Or choose a file"
            id="intake-file"
            accept=".csv,.txt,.leases,text/*"
            bind:input={picker}
            chosen={(f) => ((file = f), changed(), void send(true))}
          />
        </div>
      </div>
      {#if source === 'NEIGHBOURS' || source === 'LEASES'}
        <label class="flex items-baseline gap-2"
          ><input
            type="checkbox"
            class="translate-y-0.5"
            bind:checked={make}
            onchange={() => (report = null)}
          />Make endpoints of what is not on record</label
        >
      {/if}
      {#if make && segments.length > 1}
        <div>
          <label class="field-label" for="intake-home">Lines without an address go to</label>
          <select id="intake-home" class="select w-full" bind:value={home} onchange={() => (report = null)}>
            {#each segments as s, i (s.id)}<option value={i === 0 ? 0 : s.id}>{s.name}, {s.prefix}</option
              >{/each}
          </select>
        </div>
      {/if}
      <button class="btn justify-self-start btn-primary" disabled={!text.trim() && !file}
        >See what it makes</button
      >
      <p class="quiet text-sm">
        Nothing is changed until you have seen it. One faulty line, and nothing is taken.
      </p>
    </div>
    <div class="min-w-0">
      <Trouble {problem} />
      {#if report}<IntakeReport
          {siteId}
          {report}
          {make}
          match={(name, index) => {
            const others = Object.entries(
              Object.keys(columns).length ? columns : (report?.columns ?? {}),
            ).filter(([other, i]) => i !== index && other !== name);
            columns = Object.fromEntries(name ? [...others, [name, index]] : others);
            void send(true);
          }}
          take={() => send(false)}
        />{/if}
    </div>
  </form>
{/if}
