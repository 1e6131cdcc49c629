<script lang="ts">
  import Knot from '../../ui/Knot.svelte';
  import { serverClock } from '../../ui/now.svelte';
  import { when } from '../../ui/time';
  import { registerWork } from './acts.svelte';
  import { FACTS, stateKnot, stateWords, type RegistryLine } from './states';

  /** One unit in one registry: how it stands, what it holds, and the one thing to do next. */
  let {
    line,
    siteId,
    mayWork,
    of,
    register,
    people,
    here = false,
  }: {
    line: RegistryLine;
    siteId: number;
    mayWork: boolean;
    /** Whose list it stands in: the heading is the other of the two. */
    of: 'registry' | 'endpoint';
    register: (line: RegistryLine) => void;
    people?: (line: RegistryLine) => void;
    /** Whether somebody came for this very line. */
    here?: boolean;
  } = $props();
  const comeTo = (node: HTMLElement) => {
    if (!here) return;
    node.scrollIntoView({ block: 'center' });
    node.querySelector<HTMLButtonElement>('button')?.focus();
  };
  const work = registerWork(() => siteId);
  const time = (iso: string) => when(iso, serverClock.millis);
  const held = $derived(
    [line.entry.name, line.entry.mac, line.entry.address, line.entry.owner && 'owner ' + line.entry.owner]
      .filter(Boolean)
      .join(' · '),
  );
  const next = $derived.by((): [string, () => void] | null => {
    if (!mayWork || line.endedAt) return null;
    if (!line.id) return ['Register', () => register(line)];
    if (line.state === 'ENDED') return ['Registered again', () => void work.act(line, { act: 'RENEW' })];
    if (line.state === 'TO_REGISTER') return ['Handed in', () => void work.act(line, { act: 'HAND_IN' })];
    if (line.stale.length) return ['Corrected there', () => void work.act(line, { act: 'ENTER' })];
    if (line.restartPending) return ['It has restarted', () => void work.act(line, { act: 'RESTARTED' })];
    if (line.state === 'SUBMITTED') return ['It stands there', () => void work.act(line, { act: 'ENTER' })];
    if (line.state === 'EXPIRING') return ['Renewed', () => void work.act(line, { act: 'RENEW' })];
    return null;
  });
</script>

<li
  class="border-b border-base-300 py-2 {here ? 'border-l-4 border-l-accent bg-base-200 pl-2' : ''}"
  data-entry={stateWords(line)}
  {@attach comeTo}
>
  <div class="flex flex-wrap items-center gap-x-3 gap-y-1">
    <Knot state={stateKnot(line)} size={24} />
    <span class="min-w-0 flex-1 basis-56">
      <span class="font-semibold">{of === 'registry' ? line.endpoint : line.registry}</span>
      <span class="quiet text-sm">{stateWords(line)}</span>
      <span class="block font-mono text-[13px] break-words sm:truncate" translate="no"
        >{held || 'nothing yet'}</span
      >
    </span>
    <div class="flex flex-wrap items-center gap-x-3 gap-y-1 max-sm:w-full max-sm:pl-9">
      {#if line.endsAt && !line.endedAt}<span
          class="text-sm {line.state === 'EXPIRING' || line.state === 'ENDED' ? 'text-error' : 'quiet'}"
          >{line.state === 'ENDED' ? 'ended' : 'until'} {line.endsWords}</span
        >{:else if line.askedAt && !line.enteredAt}<span class="quiet text-sm"
          >since {time(line.askedAt)}</span
        >{/if}
      {#if next}<button
          class="btn btn-outline btn-primary btn-sm"
          disabled={work.busy}
          onclick={next[1]}
          aria-label="{next[0]}: {of === 'registry' ? line.endpoint : line.registry}">{next[0]}</button
        >{/if}
      {#if mayWork && line.id && !line.endedAt}
        {#if people}<button
            class="link text-sm text-primary"
            onclick={() => people(line)}
            aria-label="Change the entry of {line.endpoint}">Change</button
          >{/if}
        <button
          class="link text-sm text-error"
          disabled={work.busy}
          onclick={() => void work.act(line, { act: 'TAKE_OUT', reason: 'Taken out by hand' })}
          aria-label="Take {line.endpoint} out of {line.registry}">Take out</button
        >
      {/if}
    </div>
  </div>
  {#if line.stale.length && line.id}
    {#each line.stale as s (s.fact)}<p class="mt-1 pl-9 text-sm text-error">
        The {FACTS[s.fact]} there is <span class="font-mono">{s.holds || 'missing'}</span>; it is
        <span class="font-mono">{s.truth || 'not on record'}</span>.
      </p>{/each}
  {:else if line.objections.length}
    <p class="mt-1 pl-9 text-sm text-error">{line.objections[0]?.message}</p>
  {:else if line.next && line.id}<p class="quiet mt-1 pl-9 text-sm">{line.next}</p>{/if}
  {#if work.problem}<p class="mt-1 pl-9 text-sm text-error" role="alert">{work.problem.message}</p>{/if}
</li>
