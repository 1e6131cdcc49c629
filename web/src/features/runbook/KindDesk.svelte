<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { api, asProblem, ok, type Problem, type Schemas } from '../../api/client';
  import { kindsQuery } from '../../api/queries';
  import Loading from '../../ui/Loading.svelte';
  import Trouble from '../../ui/Trouble.svelte';

  /** The kinds there are, each as a file; a lead writes her own beside them. */
  let { lead }: { lead: boolean } = $props();
  const client = useQueryClient();
  const kinds = createQuery(() => kindsQuery);
  let yaml = $state('');
  let of = $state('');
  let check = $state<Schemas['KindCheckView'] | null>(null);
  let kept = $state('');
  let problem = $state<Problem | null>(null);
  let area = $state<HTMLTextAreaElement>();

  async function take(id: string) {
    try {
      yaml = await (await fetch(`/api/kinds/${id}/file`)).text();
      const own = kinds.data?.find((k) => k.id === id && !k.shipped);
      if (!own) yaml = yaml.replace(/^id: .*$/m, `id: ${id}-own`).replace(/^version: .*$/m, 'version: 1');
      of = id;
      kept = '';
      problem = null;
    } catch (error) {
      problem = asProblem(error);
    }
  }

  async function bring(event: Event & { currentTarget: HTMLInputElement }) {
    const file = event.currentTarget.files?.[0];
    if (!file) return;
    yaml = await file.text();
    of = file.name;
    kept = '';
  }

  // Checked as soon as the hand rests.
  $effect(() => {
    const text = yaml;
    check = null;
    if (!text.trim()) return;
    const timer = setTimeout(async () => {
      try {
        check = await ok(api.POST('/api/kinds/check', { body: { yaml: text } }));
        problem = null;
      } catch (error) {
        problem = asProblem(error);
      }
    }, 350);
    return () => clearTimeout(timer);
  });

  function goTo(line: number) {
    if (!area) return;
    const start =
      yaml
        .split('\n')
        .slice(0, line - 1)
        .join('\n').length + (line > 1 ? 1 : 0);
    const end = yaml.indexOf('\n', start);
    area.focus();
    area.setSelectionRange(start, end < 0 ? yaml.length : end);
    area.scrollTop = Math.max(0, (line - 6) * 20);
  }

  async function keep() {
    try {
      const kind = await ok(api.POST('/api/kinds', { body: { yaml } }));
      kept = `${kind.name}, version ${kind.version}, is kept. Runbooks that have begun go on with theirs.`;
      problem = null;
      await client.invalidateQueries({ queryKey: ['kinds'] });
    } catch (error) {
      problem = asProblem(error);
    }
  }
</script>

<h1>Kinds</h1>
<p class="quiet mt-1">
  Each kind is one file: what is read, set, waited for and proved. Share it by handing the file on.
</p>
{#if kinds.error}
  <Trouble problem={asProblem(kinds.error)} again={() => kinds.refetch()} />
{:else if !kinds.data}
  <Loading />
{:else}
  <div class="mt-4 grid gap-8 lg:grid-cols-[minmax(16rem,22rem)_minmax(0,1fr)]">
    <ul aria-label="Kinds">
      {#each kinds.data as k (k.id)}
        <li class="flex items-baseline gap-3 border-b border-base-300 py-1.5">
          <span class="min-w-0 flex-1"
            ><span class="font-semibold">{k.name}</span>
            <span class="quiet text-sm">{k.shipped ? '' : 'own, '}version {k.version}</span></span
          >
          <a class="link text-sm" href="/api/kinds/{k.id}/file" download="{k.id}.yaml">File</a>
          {#if lead}<button class="link text-sm" onclick={() => take(k.id)}
              >{k.shipped ? 'Copy' : 'Change'}</button
            >{/if}
        </li>
      {/each}
    </ul>
    {#if lead}
      <section aria-label="Your own kind" class="min-w-0">
        <div class="flex flex-wrap items-center gap-3">
          <h2 class="mr-auto">{of ? `From ${of}` : 'Your own kind'}</h2>
          <label class="btn btn-outline btn-primary btn-sm"
            >Bring a file<input type="file" class="sr-only" accept=".yaml,.yml" onchange={bring} /></label
          >
        </div>
        <label class="sr-only" for="kind-file">The kind as YAML</label>
        <textarea
          id="kind-file"
          bind:this={area}
          bind:value={yaml}
          class="textarea mt-2 h-[46vh] w-full font-mono text-sm leading-5"
          spellcheck="false"
          autocapitalize="off"
          placeholder="Copy one of the kinds, or bring a file."
          aria-describedby="kind-said"
        ></textarea>
        <div id="kind-said" aria-live="polite" class="mt-2">
          {#if check?.findings.length}
            <ul class="border-l-4 border-error pl-3">
              {#each check.findings as f (f.line + f.message)}
                <li>
                  {#if f.line}<button class="link font-semibold" onclick={() => goTo(f.line)}
                      >Line {f.line}</button
                    >:{/if}
                  {f.message}
                </li>
              {/each}
            </ul>
          {:else if check}
            <p class="font-semibold text-success">Nothing speaks against it. Its steps, in order:</p>
            <ol class="list-decimal columns-2 pl-5 text-sm">
              {#each check.steps as title (title)}<li>{title}</li>{/each}
            </ol>
          {/if}
          {#if kept}<p class="mt-2 font-semibold">{kept}</p>{/if}
        </div>
        <Trouble {problem} />
        <button class="btn mt-3 btn-primary" disabled={!check || check.findings.length > 0} onclick={keep}
          >Keep this version</button
        >
      </section>
    {/if}
  </div>
{/if}
