<script lang="ts">
  import type { Schemas } from '../../api/client';
  import { at, changeAt } from '../../router';

  /** One way back, with what it takes and where it is done. */
  let {
    siteId,
    id,
    way,
    better,
    mayWork,
    busy,
    again,
  }: {
    siteId: number;
    id: number;
    way: Schemas['Way'];
    better: boolean;
    mayWork: boolean;
    busy: boolean;
    again: (reset: boolean) => Promise<void>;
  } = $props();
  const look = $derived(['btn btn-sm', better ? 'btn-primary' : 'btn-outline btn-primary']);
</script>

<div class="mt-4" data-way={way.act}>
  <h3 class="font-bold">
    {better ? '' : 'Or: '}{way.title}<span class="quiet font-normal"
      >, about {way.minutes} min{way.alone ? ` and ${way.alone} by itself` : ''}</span
    >
  </h3>
  {#if way.before}<p class="caution mt-1">{way.before}</p>{/if}
  <ol class="mt-1 list-decimal pl-5">
    {#each way.steps as step (step)}<li>{step}</li>{/each}
  </ol>
  {#if mayWork}
    <div class="mt-2 flex flex-wrap gap-2">
      {#if way.act === 'REDO_RESET' || way.act === 'REDO_ADDRESS'}
        <button class={look} disabled={busy} onclick={() => again(way.act === 'REDO_RESET')}
          >Open these steps again</button
        >
      {:else if way.act === 'GO_ON'}
        <a class={look} href={at(siteId, 'onboard', id)}>To its runbook</a>
      {:else if way.act === 'MEND_LIST'}
        <a class={look} href={at(siteId, 'register', id)}>To its lists</a>
      {:else if way.act === 'PLUG_BACK'}
        <a class={look} href={at(siteId, 'confirm', 'sweep')}>Sweep when it is back</a>
      {:else}
        <a class={look} href={at(siteId, 'plan', id)}>Put its address on record</a>
        <a
          class="btn btn-ghost btn-sm"
          href={changeAt(siteId, { change: 'ADDRESS', subject: `DEVICE:${id}` })}>Make it a visit</a
        >
      {/if}
    </div>
  {/if}
</div>
