<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { asProblem } from '../../api/client';
  import Loading from '../../ui/Loading.svelte';
  import { at, go } from '../../router';
  import ReadTag from './ReadTag.svelte';
  import { tagQuery } from './queries';

  /** Whoever scans a tag comes here, and goes straight on to its endpoint. */
  let { code }: { code: string } = $props();
  const tag = createQuery(() => tagQuery(code));
  $effect(() => {
    if (tag.data) go(at(tag.data.siteId, 'plan', tag.data.id));
  });
</script>

<main class="mx-auto max-w-xl p-8">
  {#if tag.isError}
    <h1>This tag leads nowhere</h1>
    <p class="mt-2 mb-4" role="alert">{asProblem(tag.error).message}</p>
    <ReadTag />
    <p class="mt-6"><a class="link" href="/today">Go to the sites</a></p>
  {:else}<Loading />{/if}
</main>
