<script lang="ts">
  import type { Snippet } from 'svelte';
  import type { Schemas } from '../api/client';
  import SiteMenu from '../features/plan/SiteMenu.svelte';
  import Finder from './Finder.svelte';
  import PersonMenu from './PersonMenu.svelte';
  import Timers from './Timers.svelte';
  import Unsent from './Unsent.svelte';

  /** A page that stands before all sites. */
  let { session, children }: { session: Schemas['Session']; children: Snippet } = $props();
</script>

<header class="no-print flex items-start gap-x-2 px-4 pt-3 min-[900px]:px-6">
  <div class="flex items-start gap-2.5">
    <img src="/mark.svg" alt="" width="30" height="30" />
    <div>
      <p class="text-[17px] leading-tight font-bold tracking-tight">Knot Tag</p>
      <SiteMenu siteId={0} {session} />
    </div>
  </div>
  <div class="ml-auto flex items-center text-sm min-[500px]:gap-2">
    <Finder siteId={0} station="plan" />
    <Timers siteId={0} />
    <Unsent person={session.name} />
    <PersonMenu {session} />
  </div>
</header>
<main id="work" class="mx-auto max-w-6xl px-4 pt-6 pb-10 min-[900px]:px-6" tabindex="-1">
  {@render children()}
</main>
