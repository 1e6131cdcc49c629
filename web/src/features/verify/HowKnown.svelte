<script lang="ts">
  import type { Schemas } from '../../api/client';

  /** How it is known what was seen: what is only said on the phone is misread more often. */
  let { evidence = $bindable() }: { evidence: Schemas['ObservationRequest']['evidence'] } = $props();
  // Two may stand on one page, and must not take each other's choice.
  const name = $props.id();
  const WAYS: [typeof evidence, string][] = [
    ['SEEN', 'I see it myself'],
    ['SPOKEN', 'Somebody tells me'],
    ['PHOTO', 'On a photo'],
  ];
</script>

<fieldset class="mt-3 flex flex-wrap gap-x-4 gap-y-1 text-sm">
  <legend class="sr-only">How do you know?</legend>
  {#each WAYS as [value, words] (value)}
    <label class="flex items-center gap-1.5"
      ><input type="radio" {name} {value} bind:group={evidence} class="size-4" />{words}</label
    >
  {/each}
</fieldset>
