<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, asProblem, ok } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import { welcomeQuery } from '../../api/queries';
  import TextField from '../../ui/TextField.svelte';
  import { dayTimeIn } from '../../ui/time';
  import Trouble from '../../ui/Trouble.svelte';
  import { makePasskey, passkeysHere } from './passkeys';
  import { HERE, passkeysQuery } from './queries';

  /** The passkeys that one has, and another one for the device at which one sits. */
  const welcome = createQuery(() => welcomeQuery);
  const passkeys = createQuery(() => passkeysQuery);
  const change = useChange(() => [['passkeys']]);
  const removing = useChange(() => [['passkeys']]);
  const at = $derived(welcome.data?.passkeysAt);
  let label = $state('');
  let current = $state('');
  let made = $state('');

  async function make(e: SubmitEvent) {
    e.preventDefault();
    made = '';
    const name = label;
    if (!(await change.run(() => makePasskey(label, current)))) return;
    made = name;
    label = current = '';
  }
  const remove = (key: string) =>
    removing.run(() => ok(api.DELETE('/api/me/passkeys/{key}', { params: { path: { key } } })));
</script>

<h3 class="font-semibold">Passkeys</h3>
<p class="quiet text-sm">
  Enter with the finger, the face or the number that unlocks a device, instead of the password.
</p>
{#if passkeys.error}<Trouble problem={asProblem(passkeys.error)} again={() => passkeys.refetch()} />{/if}
<ul class="mt-1">
  {#each passkeys.data ?? [] as p (p.id)}
    <li class="flex items-center gap-3 border-b border-base-300 py-2">
      <span class="min-w-0 flex-1 break-words"
        >{p.label}
        <span class="quiet block text-sm"
          >made {dayTimeIn(p.made, HERE)}, {p.lastUsed === p.made
            ? 'not used yet'
            : `used last ${dayTimeIn(p.lastUsed, HERE)}`}</span
        >
      </span>
      <button
        class="btn btn-sm"
        disabled={removing.busy}
        aria-label="Remove {p.label}"
        onclick={() => remove(p.id)}>Remove</button
      >
    </li>
  {/each}
</ul>
<Trouble problem={removing.problem} />
{#if passkeysHere(at)}
  <form onsubmit={make} class="mt-3 grid gap-3">
    <TextField
      label="Name of the new passkey, such as the device"
      bind:value={label}
      error={change.problem?.field('label')}
      required
    />
    <TextField
      label="Your password, so that nobody else adds one"
      type="password"
      bind:value={current}
      error={change.problem?.field('current')}
      required
      autocomplete="current-password"
    />
    {#if change.problem && !change.problem.errors.length}<Trouble problem={change.problem} />{/if}
    <button class="btn justify-self-start" disabled={change.busy}>Add a passkey</button>
    {#if made}<p role="status">“{made}” is good from now on.</p>{/if}
  </form>
{:else if at === location.origin}
  <p class="mt-2 text-sm">This browser is too old to make one.</p>
{:else if at === null}
  <p class="mt-2 text-sm">
    A passkey belongs to the name of this page, and none is set yet. Whoever runs the server starts it with
    <span class="font-mono">--page</span>.
  </p>
{:else if at}
  <p class="mt-2 text-sm">
    A passkey belongs to the name of the page. Open it as <a class="link" href={at}>{at}</a> to add or use one.
  </p>
{/if}
