<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, asProblem, ok } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import TextField from '../../ui/TextField.svelte';
  import { dayTimeIn } from '../../ui/time';
  import NewPasswordField from './NewPasswordField.svelte';
  import Passkeys from './Passkeys.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { HERE, ownSessionsQuery } from './queries';

  /** One's own password and passkeys, and the machines on which one is signed in. */
  const sessions = createQuery(() => ownSessionsQuery);
  const change = useChange(() => [['own-sessions'], ['people']]);
  const ending = useChange(() => [['own-sessions'], ['people']]);
  let current = $state('');
  let password = $state('');
  let done = $state(false);

  async function set(e: SubmitEvent) {
    e.preventDefault();
    done = await change.run(() => ok(api.POST('/api/me/password', { body: { current, password } })));
    if (done) current = password = '';
  }
  const end = (key: string) =>
    ending.run(() => ok(api.DELETE('/api/me/sessions/{key}', { params: { path: { key } } })));
</script>

<h3 class="font-semibold">Signed in now</h3>
{#if sessions.error}<Trouble problem={asProblem(sessions.error)} again={() => sessions.refetch()} />{/if}
<ul class="mt-1">
  {#each sessions.data ?? [] as s (s.key)}
    <li class="flex items-center gap-3 border-b border-base-300 py-2">
      <span class="min-w-0 flex-1">
        {#if s.here}This machine{:else}From <span class="font-mono">{s.from || 'an unknown address'}</span
          >{/if}
        <span class="quiet block text-sm"
          >since {dayTimeIn(s.since, HERE)}{s.here ? '' : `, used last ${dayTimeIn(s.lastUsed, HERE)}`}</span
        >
      </span>
      {#if !s.here}<button class="btn btn-sm" disabled={ending.busy} onclick={() => end(s.key)}
          >Sign it out</button
        >{/if}
    </li>
  {/each}
</ul>
<Trouble problem={ending.problem} />
<div class="mt-5"><Passkeys /></div>
<form onsubmit={set} class="mt-5 grid gap-3">
  <h3 class="font-semibold">Another password</h3>
  <TextField
    label="The password that you have now"
    type="password"
    bind:value={current}
    error={change.problem?.field('current')}
    required
    autocomplete="current-password"
  />
  <NewPasswordField
    label="The new one"
    then=" Every other machine is signed out."
    bind:value={password}
    error={change.problem?.field('password')}
  />
  {#if change.problem && !change.problem.field('current') && !change.problem.field('password')}<Trouble
      problem={change.problem}
    />{/if}
  <button class="btn justify-self-start btn-primary" disabled={change.busy}>Change it</button>
  {#if done}<p role="status">It is changed, and every other machine is signed out.</p>{/if}
</form>
