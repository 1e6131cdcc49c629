<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { api, asProblem, ok, type Problem, type Schemas } from '../../api/client';
  import { kindsQuery } from '../../api/queries';
  import Loading from '../../ui/Loading.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import KindRecipe from './KindRecipe.svelte';
  import { kept } from '../../ui/kept.svelte';

  /** The kinds there are, each as a file; a lead writes her own beside them. */
  let { lead }: { lead: boolean } = $props();
  const client = useQueryClient();
  const kinds = createQuery(() => kindsQuery);
  const typed = kept('kind', { yaml: '', of: '' });
  const draft = typed.value;
  let writing = $state(!!draft.of);
  /** The kind that is read as a recipe while none is written. */
  let reading = $state('');
  const read = $derived(writing ? undefined : (kinds.data?.find((k) => k.id === reading) ?? kinds.data?.[0]));
  let check = $state<Schemas['KindCheckView'] | null>(null);
  let said = $state('');
  let problem = $state<Problem | null>(null);
  let editor = $state<ReturnType<typeof import('./kindEditor').kindEditor>>();

  /** The editor comes when somebody writes: it weighs as much as the rest of the page. */
  function write(host: HTMLElement) {
    let gone = false;
    void import('./kindEditor').then(({ kindEditor }) => {
      if (gone) return;
      editor = kindEditor(host, 'The kind as YAML', (text) => (draft.yaml = text));
    });
    return () => {
      gone = true;
      editor?.destroy();
      editor = undefined;
    };
  }
  $effect(() => editor?.set(draft.yaml));
  $effect(() => editor?.wrong(check?.findings ?? []));

  async function take(id: string) {
    try {
      let text = await (await fetch(`/api/kinds/${id}/file`)).text();
      const own = kinds.data?.find((k) => k.id === id && !k.shipped);
      if (!own) text = text.replace(/^id: .*$/m, `id: ${id}-own`).replace(/^version: .*$/m, 'version: 1');
      draft.yaml = text;
      draft.of = id;
      said = '';
      writing = true;
      problem = null;
    } catch (error) {
      problem = asProblem(error);
    }
  }

  async function bring(event: Event & { currentTarget: HTMLInputElement }) {
    const file = event.currentTarget.files?.[0];
    if (!file) return;
    draft.yaml = await file.text();
    draft.of = file.name;
    said = '';
    writing = true;
  }

  // Checked as soon as the hand rests.
  $effect(() => {
    const text = draft.yaml;
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

  async function keep() {
    try {
      const kind = await ok(api.POST('/api/kinds', { body: { yaml: draft.yaml } }));
      said = `${kind.name}, version ${kind.version}, is kept. Runbooks that have begun go on with theirs.`;
      problem = null;
      await client.invalidateQueries({ queryKey: ['kinds'] });
    } catch (error) {
      problem = asProblem(error);
    }
  }
</script>

<h1>Kinds</h1>
<p class="quiet mt-1">
  What is read, set, waited for and proved of each. A kind is one file; share it by handing the file on.
</p>
{#if kinds.error}
  <Trouble problem={asProblem(kinds.error)} again={() => kinds.refetch()} />
{:else if !kinds.data}
  <Loading />
{:else}
  <div class="mt-4 grid gap-8 lg:grid-cols-[minmax(16rem,22rem)_minmax(0,1fr)]">
    <div>
      <ul aria-label="Kinds">
        {#each kinds.data as k (k.id)}
          <li class="flex items-baseline gap-3 border-b border-base-300 py-1.5">
            <span class="min-w-0 flex-1"
              ><button
                class="cursor-pointer text-left font-semibold hover:underline"
                aria-pressed={read?.id === k.id}
                onclick={() => ((reading = k.id), (writing = false))}>{k.name}</button
              >
              <span class="quiet text-sm">{k.shipped ? '' : 'own, '}version {k.version}</span></span
            >
            <a class="link text-sm" href="/api/kinds/{k.id}/file" download="{k.id}.yaml">File</a>
            {#if lead}<button class="link text-sm" onclick={() => take(k.id)}
                >{k.shipped ? 'Copy' : 'Change'}</button
              >{/if}
          </li>
        {/each}
      </ul>
      {#if lead}<p class="mt-3 flex flex-wrap gap-2">
          <label class="btn btn-outline btn-primary btn-sm"
            >Bring a file<input type="file" class="sr-only" accept=".yaml,.yml" onchange={bring} /></label
          ><button class="btn btn-outline btn-primary btn-sm" onclick={() => (writing = true)}
            >{draft.yaml ? 'Go on writing' : 'Write one'}</button
          >
        </p>{/if}
    </div>
    {#if read}
      <div class="min-w-0">
        {#key read.id}<KindRecipe id={read.id} name={read.name} />{/key}
      </div>
    {:else if lead}
      <section aria-label="Your own kind" class="min-w-0">
        <h2>{draft.of ? `From ${draft.of}` : 'Your own kind'}</h2>
        <div class="mt-2" data-editor {@attach write}></div>
        <div id="kind-said" aria-live="polite" class="mt-2">
          {#if check?.findings.length}
            <ul class="border-l-4 border-error pl-3">
              {#each check.findings as f (f.line + f.message)}
                <li>
                  {#if f.line}<button class="link font-semibold" onclick={() => editor?.goTo(f.line)}
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
          {#if said}<p class="mt-2 font-semibold">{said}</p>{/if}
        </div>
        <Trouble {problem} />
        <button class="btn mt-3 btn-primary" disabled={!check || check.findings.length > 0} onclick={keep}
          >Keep this version</button
        >
      </section>
    {/if}
  </div>
{/if}
