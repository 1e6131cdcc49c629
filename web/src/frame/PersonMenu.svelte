<script lang="ts">
  import UserRound from '@lucide/svelte/icons/user-round';
  import { useQueryClient } from '@tanstack/svelte-query';
  import { forgetAnswers } from '../api/answers.svelte';
  import { api, asProblem, ok, type Problem, type Schemas } from '../api/client';
  import { outbox } from '../api/outbox.svelte';
  import { shut } from '../ui/shut';
  import { shortName } from '../ui/time';
  import Dialog from '../ui/Dialog.svelte';
  import Trouble from '../ui/Trouble.svelte';
  import { forgetTyped } from '../ui/kept.svelte';
  import { newer, takeNewer } from './installed.svelte';
  import OwnSignIn from '../features/account/OwnSignIn.svelte';

  let { session }: { session: Schemas['Session'] } = $props();
  const client = useQueryClient();
  let own = $state(false);
  let leaving = $state(false);
  let stays = $state<Problem | null>(null);
  const short = $derived(shortName(session.name));

  function dress(theme: 'bench' | 'cupboard' | '') {
    if (theme) {
      document.documentElement.dataset.theme = theme;
      localStorage.setItem('knot-theme', theme);
    } else {
      delete document.documentElement.dataset.theme;
      localStorage.removeItem('knot-theme');
    }
  }

  async function leave() {
    if (outbox.mine.length && !leaving) {
      leaving = true;
      return;
    }
    try {
      await ok(api.DELETE('/api/session'));
    } catch (e) {
      stays = asProblem(e);
      leaving = true;
      return;
    }
    forgetTyped();
    await forgetAnswers();
    client.clear();
    client.setQueryData(['session'], null);
    location.assign('/');
  }
</script>

{#if newer.ready}<button
    class="btn btn-ghost px-2 btn-sm"
    onclick={takeNewer}
    title="What is typed in an open form is lost">Newer version</button
  >{/if}
<details class="dropdown dropdown-end" {@attach shut}>
  <summary class="btn btn-ghost px-2 font-semibold btn-sm"
    ><UserRound size={16} aria-hidden="true" /><span class="max-[500px]:sr-only">{short}</span></summary
  >
  <ul class="dropdown-content menu z-20 mt-1 w-56 rounded border border-base-300 bg-base-100 shadow-lg">
    <li class="menu-title">{session.name}, {session.role.toLowerCase()}</li>
    <li><button onclick={() => dress('bench')}>Day: bench</button></li>
    <li><button onclick={() => dress('cupboard')}>Night: cupboard</button></li>
    <li><button onclick={() => dress('')}>As the system says</button></li>
    {#if session.role === 'LEAD'}<li><a href="/people">People</a></li>{/if}
    {#if session.role !== 'OFFICE'}<li><a href="/practice">Practice</a></li>{/if}
    <li><button onclick={() => (own = true)}>Your sign-in</button></li>
    <li><button onclick={leave}>Sign out</button></li>
  </ul>
</details>
<Dialog bind:open={own} title="Your sign-in"
  >{#if own}<OwnSignIn />{/if}</Dialog
>
<Dialog bind:open={leaving} title="Sign out">
  {#if outbox.mine.length}
    <p>
      {outbox.mine.length} of what you did here {outbox.mine.length === 1 ? 'is' : 'are'} not sent yet. They stay
      on this device for you alone, and are sent when you sign in here again.
    </p>
  {/if}
  {#if stays}
    <Trouble problem={stays} />
    <p>You are still signed in. Lock this device, and sign out when Knot Tag can be reached.</p>
  {/if}
  <div class="mt-4 flex gap-2">
    <button class="btn btn-primary" onclick={() => (leaving = false)}>Stay</button>
    <button class="btn btn-ghost" onclick={leave}>{stays ? 'Try again' : 'Sign out all the same'}</button>
  </div>
</Dialog>
