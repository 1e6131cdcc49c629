<script lang="ts">
  import type { MadeFrom } from './madeFrom.svelte';

  /** Says in a form that somebody else has changed the same meanwhile, and lets one of the two be chosen. */
  let { made }: { made: MadeFrom } = $props();
</script>

<div role="status">
  {#if made.changed}
    <div class="caution my-3">
      <p>
        Somebody changed this while you had it open.
        {made.showsTheirs
          ? 'The form shows theirs; yours is kept.'
          : 'The form shows yours; theirs stands on record.'}
      </p>
      <p class="mt-1 flex flex-wrap gap-x-4">
        <button type="button" class="link" onclick={made.turn}
          >{made.showsTheirs ? 'Show mine again' : 'Show theirs'}</button
        >
        <button type="button" class="link" onclick={made.choose}
          >{made.showsTheirs ? 'Go on with theirs' : 'Go on with mine'}</button
        >
      </p>
    </div>
  {/if}
</div>
