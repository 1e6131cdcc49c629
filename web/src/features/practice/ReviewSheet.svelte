<script lang="ts">
  import type { Schemas } from '../../api/client';
  import Knot from '../../ui/Knot.svelte';

  /** What it was, what each look was good for, and how the best search goes. */
  let {
    review,
    again,
    onwards,
  }: { review: Schemas['ReviewView']; again: () => void; onwards: (id: string) => void } = $props();
  const percent = (share: number) => Math.round(share * 100);

  /** What a look told of what is really wrong, in words. */
  function told(l: Schemas['ReviewLineView']): string {
    if (l.truly) return `Misread: ${l.truly.toLowerCase()}.`;
    if (l.nearer > 1) return `It made the cause ${Math.round(2 ** l.nearer)} times likelier.`;
    if (l.nearer > 0.2) return 'It helped a little.';
    return l.nearer < -0.5 ? 'It led away from it.' : 'It told next to nothing.';
  }
</script>

<section class="mt-5 border-t-2 border-base-content pt-3" aria-label="How it went">
  <div class="flex items-start gap-3">
    <Knot state={!review.right ? 'FAILED' : review.score < 0.9 ? 'ACTIVE' : 'PASSED'} size={40} />
    <div>
      <h2>{review.right ? 'Found' : 'It was something else'}: {review.truth.join(', and: ')}</h2>
      <p>
        <span class="font-mono text-xl">{percent(review.score)}</span> of 100.
        {#if review.right}
          You took <span class="font-mono">{review.minutes.toFixed(1)}</span> min, the best search takes
          <span class="font-mono">{review.par.toFixed(1)}</span>.
          {#if review.sure < 0.8}From what you had seen it was {percent(review.sure)} % sure: you were lucky.{/if}
        {:else}From what you had seen, what you named was {percent(review.sure)} % likely.{/if}
      </p>
      <p class="mt-1">
        What helps: {review.remedy.join(' ')}{#if review.call}&ensp;Or call {review.call}.{/if}
      </p>
    </div>
  </div>
  <div class="mt-3 flex flex-wrap gap-2">
    <button class="btn btn-primary" onclick={() => onwards(review.next.id)}>Next case</button>
    <button class="btn btn-outline" onclick={again}>The same once more</button>
  </div>
  <div class="mt-5 grid gap-8 min-[900px]:grid-cols-2">
    <div>
      <h2>What you looked at</h2>
      {#if review.looks.length}
        <ol>
          {#each review.looks as l (l.words)}
            <li class="border-b border-base-300 py-1.5">
              <span class="quiet">{l.words}</span> <span class="font-mono">{l.minutes} min</span><br
              />{l.said}.
              <span class="font-semibold">{told(l)}</span>
              {#if l.better}<span class="quiet">More for its minutes: {l.better}</span>{/if}
            </li>
          {/each}
        </ol>
      {:else}<p class="quiet">Nothing.</p>{/if}
    </div>
    <div>
      <h2>The best search</h2>
      <ol>
        {#each review.best as l (l.words)}
          <li class="border-b border-base-300 py-1.5">
            <span class="quiet">{l.words}</span> <span class="font-mono">{l.minutes} min</span><br />{l.said}.
          </li>
        {/each}
      </ol>
    </div>
  </div>
</section>
