<script lang="ts">
  import type { Schemas } from '../../api/client';

  /** What comes in the box, what to bring, how it is plugged together, and which steps were left out. */
  let { book }: { book: Schemas['RunbookView'] } = $props();
  const o = $derived(book.outfit);
  const lists = $derived(
    (
      [
        ['In the box', o.kit],
        ['Leave in the box', o.leaveInBox],
        ['Bring', [...o.tools, ...o.usedUp.map((s) => `${s.each} × ${s.name}`)]],
        ['From the factory', o.factory],
      ] as [string, string[]][]
    ).filter(([, items]) => items.length),
  );
  const anything = $derived(lists.length || o.plugs.length || o.variants.length || o.where);
</script>

{#if anything}
  <details class="mt-4 border-t border-base-300 pt-3 text-sm">
    <summary class="cursor-pointer font-semibold">Box, plugs and models</summary>
    {#if o.where}<p class="mt-2">{o.where}</p>{/if}
    {#each lists as [title, items] (title)}
      <h3 class="mt-3 font-semibold">{title}</h3>
      <p>{items.join(', ')}</p>
    {/each}
    {#if o.plugs.length}
      <h3 class="mt-3 font-semibold">Plug in, in this order</h3>
      <ol class="list-decimal pl-5">
        {#each o.plugs as p (p.plug)}<li>{p.plug}: {p.into}</li>{/each}
      </ol>
    {/if}
    {#if o.variants.length}
      <h3 class="mt-3 font-semibold">Models that look alike</h3>
      <ul>
        {#each o.variants as v (v.model)}<li>
            <span class="font-mono">{v.model}</span>: {v.fits ? 'fits' : 'does not fit'}, {v.because}
          </li>{/each}
      </ul>
    {/if}
  </details>
{/if}
{#if book.leftOut.length}
  <details class="mt-4 border-t border-base-300 pt-3 text-sm">
    <summary class="cursor-pointer font-semibold"
      >{book.leftOut.length === 1 ? 'One step does' : book.leftOut.length + ' steps do'} not apply</summary
    >
    <ul class="mt-2">
      {#each book.leftOut as l (l.title + l.because)}<li class="mt-1">
          <span class="font-semibold">{l.title}.</span>
          {l.because}
        </li>{/each}
    </ul>
  </details>
{/if}
