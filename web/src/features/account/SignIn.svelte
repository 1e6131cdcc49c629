<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { api, asProblem, ok, type Problem, type Schemas } from '../../api/client';
  import { welcomeQuery } from '../../api/queries';
  import { enterWithPasskey, passkeysHere } from './passkeys';
  import TextField from '../../ui/TextField.svelte';
  import Trouble from '../../ui/Trouble.svelte';

  const client = useQueryClient();
  const welcome = createQuery(() => welcomeQuery);
  let name = $state('');
  let password = $state('');
  let problem = $state<Problem | null>(null);
  let busy = $state(false);

  function enter(e: SubmitEvent) {
    e.preventDefault();
    return come(() => ok(api.POST('/api/session', { body: { name, password } })));
  }

  async function come(show: () => Promise<Schemas['Session']>) {
    busy = true;
    try {
      const session = await show();
      client.setQueryData(['session'], session);
      await client.invalidateQueries();
    } catch (error) {
      problem = asProblem(error);
    } finally {
      busy = false;
    }
  }
</script>

<main class="mx-auto grid min-h-dvh max-w-4xl content-center gap-10 p-6 md:grid-cols-2">
  <div>
    <p class="flex items-center gap-3 text-xl font-bold">
      <img src="/mark.svg" alt="" width="40" height="40" /> Knot Tag
    </p>
    <h1 class="mt-6 text-3xl">Every endpoint in its place, and proof that it works.</h1>
    <p class="quiet mt-3">
      Plan the address, register the MAC, set it up in the right order, and prove that it reaches its service.
    </p>
  </div>
  <div>
    <form onsubmit={enter} class="grid gap-4">
      <TextField label="Name" bind:value={name} required autocomplete="username" />
      <TextField
        label="Password"
        type="password"
        bind:value={password}
        required
        autocomplete="current-password"
      />
      <Trouble {problem} />
      <button class="btn btn-primary" disabled={busy}>Enter</button>
      {#if passkeysHere(welcome.data?.passkeysAt)}
        <button class="btn" type="button" disabled={busy} onclick={() => come(enterWithPasskey)}
          >Enter with a passkey</button
        >
      {/if}
    </form>
    {#if welcome.data?.demo}
      <section class="mt-8 border-t border-base-300 pt-4" aria-label="People of the demo">
        <h2 class="text-base">This is the demo. Enter as one of its made-up people:</h2>
        <ul class="mt-2 grid gap-1">
          {#each welcome.data.people as person (person.name)}
            <li>
              <button
                class="btn w-full justify-between btn-ghost font-normal"
                onclick={() => {
                  name = person.name;
                  password = person.password;
                }}
                ><span class="font-semibold">{person.name}</span><span class="quiet"
                  >{person.role.toLowerCase()}, <span class="font-mono">{person.password}</span></span
                ></button
              >
            </li>
          {/each}
        </ul>
      </section>
    {/if}
  </div>
</main>
