<script lang="ts">
  import type { Schemas } from '../../api/client';

  /** Names what is wrong: one cause, or two at once. */
  type Fault = Schemas['CauseView']['fault'];
  let {
    way,
    busy,
    name,
  }: { way: Schemas['PlaceView'][]; busy: boolean; name: (causes: Fault[]) => Promise<boolean> } = $props();
  let one = $state<Fault | ''>('');
  let two = $state<Fault | ''>('');
  let both = $state(false);

  function submit(event: SubmitEvent) {
    event.preventDefault();
    void name([one, both ? two : ''].filter((f) => f !== ''));
  }
</script>

{#snippet causes()}
  <option value="">Choose</option>
  {#each way.filter((w) => w.causes.length) as w (w.title)}
    <optgroup label={w.title}>
      {#each w.causes as cause (cause.fault)}<option value={cause.fault}>{cause.title}</option>{/each}
    </optgroup>
  {/each}
{/snippet}

<form onsubmit={submit}>
  <label class="field-label" for="cause">What is wrong</label>
  <select id="cause" class="select w-full" bind:value={one} required>{@render causes()}</select>
  <label class="mt-2 flex items-center gap-2"
    ><input type="checkbox" class="checkbox checkbox-sm" bind:checked={both} />Two things at once</label
  >
  {#if both}
    <label class="field-label mt-2" for="cause-too">And what else</label>
    <select id="cause-too" class="select w-full" bind:value={two} required>{@render causes()}</select>
  {/if}
  <button class="btn mt-3 btn-primary" disabled={busy}>That is it</button>
</form>
