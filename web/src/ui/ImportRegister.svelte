<script lang="ts">
  import { useQueryClient } from '@tanstack/svelte-query';
  import { api, asProblem, bytes, ok, type Problem, type Schemas } from '../api/client';
  import FileField from './FileField.svelte';
  import Trouble from './Trouble.svelte';

  let { siteId, done }: { siteId: number; done?: () => void } = $props();
  const client = useQueryClient();
  let file = $state<File | null>(null);
  let report = $state<Schemas['ImportReport'] | null>(null);
  let problem = $state<Problem | null>(null);

  async function send(preview: boolean) {
    if (!file) return;
    try {
      report = await ok(
        api.POST('/api/sites/{siteId}/import', {
          params: { path: { siteId }, query: { preview } },
          ...bytes(file, 'text/csv'),
        }),
      );
      problem = null;
      if (preview || report.problems.length) return;
      await client.invalidateQueries();
      done?.();
    } catch (error) {
      problem = asProblem(error);
    }
  }
</script>

<FileField
  label="Register file (CSV, UTF-8)"
  id="register-file"
  accept=".csv,text/csv"
  chosen={(f) => {
    file = f;
    report = null;
    void send(true);
  }}
/>
<p class="quiet mt-1 text-sm">
  Nothing is changed until you have seen what it makes. One faulty line, and nothing is taken.
</p>
<Trouble {problem} />
<div role="status" class="mt-4">
  {#if report?.problems.length}
    <h3 class="font-bold">
      {report.problems.length === 1 ? 'One thing is' : report.problems.length + ' things are'} wrong; nothing was
      taken
    </h3>
    <table class="mt-2 w-full text-sm">
      <thead
        ><tr class="text-left"
          ><th class="pr-4">Line</th><th class="pr-4">Column</th><th>What is wrong</th></tr
        ></thead
      >
      <tbody>
        {#each report.problems.slice(0, 50) as p (p.line + p.column + p.message)}
          <tr class="border-t border-base-300"
            ><td class="py-1 pr-4 font-mono">{p.line}</td><td class="pr-4 font-mono">{p.column}</td><td
              >{p.message}</td
            ></tr
          >
        {/each}
      </tbody>
    </table>
  {:else if report?.preview}
    <p>
      This makes {report.endpoints}
      {report.endpoints === 1 ? 'endpoint' : 'endpoints'}{report.segments.length
        ? ' and the ' + (report.segments.length === 1 ? 'segment ' : 'segments ') + report.segments.join(', ')
        : ''}:
    </p>
    <p class="quiet mt-1 text-sm">{report.names.join(', ')}</p>
    <button class="btn mt-3 btn-primary" onclick={() => send(false)}>Bring in {report.endpoints}</button>
  {:else if report}<p class="text-success">{report.endpoints} brought in.</p>{/if}
</div>
