<script lang="ts">
  import type { Problem } from '../api/client';
  import Knot from './Knot.svelte';

  let { problem, again }: { problem: Problem | null; again?: () => void } = $props();
</script>

<div role="alert">
  {#if problem}
    <div class="my-3 flex items-start gap-3 border-l-4 border-error bg-base-200 px-3 py-2">
      <Knot state="FAILED" size={24} />
      <div class="min-w-0">
        <p>{problem.message}</p>
        {#if problem.errors.length > 1}
          <ul class="mt-1 list-disc pl-5 text-sm">
            {#each problem.errors.slice(1) as error (error.pointer + error.message)}<li>
                {error.message}
              </li>{/each}
          </ul>
        {/if}
        {#if again}<button class="btn mt-2 btn-sm" onclick={again}>Try again</button>{/if}
      </div>
    </div>
  {/if}
</div>
