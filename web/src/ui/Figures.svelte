<script lang="ts">
  let { value, class: extra = '' }: { value: string; class?: string } = $props();
  const groups = $derived(value.split('.'));
</script>

<span class="font-mono whitespace-nowrap {extra}" translate="no"
  >{#each groups as group, i (i)}{#if i > 0}<span class="px-[0.06em] font-extrabold text-accent">.</span
      >{/if}{group}{/each}</span
>
