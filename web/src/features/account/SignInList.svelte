<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { asProblem, type Schemas } from '../../api/client';
  import Knot from '../../ui/Knot.svelte';
  import { dayTimeIn } from '../../ui/time';
  import Trouble from '../../ui/Trouble.svelte';
  import { HERE, signInsQuery } from './queries';

  /** Who came in lately, and who did not. */
  const lines = createQuery(() => signInsQuery);
  const WORDS: Record<Schemas['SignInLine']['what'], string> = {
    ENTERED: 'signed in',
    LEFT: 'signed out',
    REFUSED: 'typed a wrong password',
    CLOSED: 'tried to sign in; the account is closed',
    SLOWED: 'was made to wait after several wrong tries',
  };
  const MOST = 30;
</script>

<section aria-label="Sign-ins" class="mt-8">
  <h2>Sign-ins</h2>
  {#if lines.error}<Trouble problem={asProblem(lines.error)} again={() => lines.refetch()} />{/if}
  <ul class="mt-1">
    {#each lines.data?.slice(0, MOST) ?? [] as l (l.id)}
      <li class="flex items-center gap-3 border-b border-base-300 py-1.5 text-sm">
        <Knot state={l.what === 'ENTERED' ? 'PASSED' : l.what === 'LEFT' ? 'PENDING' : 'FAILED'} size={20} />
        <span class="min-w-0 flex-1"
          >{l.person ?? 'Somebody whose name is not on record'}
          {WORDS[l.what]}, from <span class="font-mono">{l.caller}</span></span
        >
        <span class="shrink-0 font-mono">{dayTimeIn(l.at, HERE)}</span>
      </li>
    {/each}
  </ul>
</section>
