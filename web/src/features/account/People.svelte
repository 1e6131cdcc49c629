<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { asProblem } from '../../api/client';
  import Dialog from '../../ui/Dialog.svelte';
  import Loading from '../../ui/Loading.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import Invite from './Invite.svelte';
  import OpenLinks from './OpenLinks.svelte';
  import PersonLine from './PersonLine.svelte';
  import { peopleQuery } from './queries';
  import SignInList from './SignInList.svelte';

  /** Who works here, who was invited, who signed in. */
  let { me }: { me: string } = $props();
  const people = createQuery(() => peopleQuery);
  let inviting = $state(false);
</script>

<div class="flex flex-wrap items-end justify-between gap-3">
  <div>
    <h1>People</h1>
    <p class="quiet">What you change here counts from their next press on.</p>
  </div>
  <button class="btn btn-primary" onclick={() => (inviting = true)}>Invite a colleague</button>
</div>
{#if people.error && !people.data}
  <Trouble problem={asProblem(people.error)} again={() => people.refetch()} />
{:else if !people.data}
  <Loading />
{:else}
  <ul class="mt-3" aria-label="People">
    {#each people.data as person (person.id)}<PersonLine {person} me={person.name === me} />{/each}
  </ul>
  <OpenLinks />
  <SignInList />
{/if}
<Dialog bind:open={inviting} title="Invite a colleague"
  >{#if inviting}<Invite />{/if}</Dialog
>
