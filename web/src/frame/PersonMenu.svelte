<script lang="ts">
  import UserRound from '@lucide/svelte/icons/user-round';
  import { useQueryClient } from '@tanstack/svelte-query';
  import { api, ok, type Schemas } from '../api/client';
  import { shut } from '../ui/shut';
  import { shortName } from '../ui/time';
  import Dialog from '../ui/Dialog.svelte';
  import { forgetTyped } from '../ui/kept.svelte';
  import OwnSignIn from '../features/account/OwnSignIn.svelte';

  let { session }: { session: Schemas['Session'] } = $props();
  const client = useQueryClient();
  let own = $state(false);
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
    await ok(api.DELETE('/api/session'));
    forgetTyped();
    client.clear();
    client.setQueryData(['session'], null);
    location.assign('/');
  }
</script>

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
    <li><button onclick={() => (own = true)}>Your sign-in</button></li>
    <li><button onclick={leave}>Sign out</button></li>
  </ul>
</details>
<Dialog bind:open={own} title="Your sign-in"
  >{#if own}<OwnSignIn />{/if}</Dialog
>
