<script lang="ts">
  import { tick } from 'svelte';
  import { minutes } from '../../ui/time';
  import { at } from '../../router';
  import type { Strand } from './strands';

  /** The turns of each person as a list, which is also the sheet of the day. */
  let { rows, open, hour }: { rows: Strand[]; open: boolean; hour: (iso: string) => string } = $props();
  let printing = $state(false);
  /** All turns on the sheet, without the picture. */
  async function print() {
    printing = true;
    await tick();
    window.print();
    printing = false;
  }
</script>

<details class="mt-3" open={open || printing}>
  <summary class="cursor-pointer font-semibold">Turn by turn</summary>
  <button class="no-print btn mt-1 btn-sm" onclick={print}>Print the day</button>
  <div class="mt-2 grid gap-6 md:grid-cols-2 xl:grid-cols-3">
    {#each rows as row (row.name)}
      <div>
        <h3 class="font-bold">{row.name}</h3>
        <ol>
          {#each row.turns as { turn } (turn.unitId + ' ' + turn.from)}
            <li class="flex gap-3 border-b border-base-300 py-1 text-sm">
              <span class="font-mono {turn.tight ? 'font-bold' : ''}">{hour(turn.from)}</span>
              <span class="min-w-0 flex-1"
                >{#if turn.unitId > 0}<a
                    class="font-semibold hover:underline"
                    href={at(turn.siteId, 'onboard', turn.unitId)}>{turn.unit}</a
                  >: {turn.title}{:else}<span class="font-semibold">{turn.title}</span>{/if}
                <span class="quiet"
                  >{turn.place ? turn.place + ', ' : ''}until {hour(turn.until)}{turn.done === turn.until
                    ? ''
                    : `, then by itself until ${hour(turn.done)}`}{turn.tight
                    ? ', tight'
                    : turn.slack
                      ? `, may be ${minutes(turn.slack)} late`
                      : ', in hand'}</span
                ></span
              >
            </li>
          {:else}<li class="quiet text-sm">Nothing is left for {row.name}.</li>{/each}
        </ol>
      </div>
    {/each}
  </div>
</details>
