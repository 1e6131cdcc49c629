<script lang="ts">
  import CloudOff from '@lucide/svelte/icons/cloud-off';
  import { useQueryClient } from '@tanstack/svelte-query';
  import { network } from '../api/answers.svelte';
  import { openingSays, outbox, sheetSays, words, type Unsent } from '../api/outbox.svelte';
  import Dialog from '../ui/Dialog.svelte';
  import { hourOf } from '../ui/time';
  import { at } from '../router';

  /** Says that there is no network, and what was done here that is not sent yet; whatever clashes is settled here. */
  let { person }: { person: string } = $props();
  const client = useQueryClient();
  let open = $state(false);
  const mine = $derived(outbox.mine);
  const settle = $derived(mine.filter((u) => u.state !== 'waits').length);
  const AGAIN = 5_000;

  $effect(() => {
    void outbox.open(person).then(() => outbox.send(client));
    const now = () => void outbox.send(client);
    const timer = setInterval(now, AGAIN);
    addEventListener('online', now);
    return () => {
      clearInterval(timer);
      removeEventListener('online', now);
    };
  });
  // The first answer that comes again is the sign that all of it can be sent.
  $effect(() => {
    if (!network.down) void outbox.send(client);
  });

  const DID = {
    START: 'begun',
    COMPLETE: 'done',
    OVERRIDE: 'left out',
    REOPEN: 'undone',
    RESTARTED: 'restarted',
  };
  const ABOUT = {
    down: `Knot Tag cannot be reached just now. You can go on: what you see is what was last heard today,
      and what you do is kept here and sent in order.`,
    settle: `Knot Tag can be reached again. Settle what is marked here;
      what you did after it on the same device waits for that.`,
    sends: 'Knot Tag can be reached again. What waits is sent now.',
    sent: 'All of it is sent.',
  };
  const says = $derived(ABOUT[network.down ? 'down' : settle ? 'settle' : mine.length ? 'sends' : 'sent']);
  const title = ({ did }: Unsent) =>
    did.what === 'step' ? `${did.title}: ${DID[did.action]}` : did.what === 'label' ? 'Its label' : did.title;
  const entered = ({ did }: Unsent) =>
    did.what === 'step'
      ? did.reason || words(did.evidence)
      : did.what === 'label'
        ? words(did.label)
        : did.what === 'facts' || did.what === 'look'
          ? did.says
          : did.what === 'sheet'
            ? sheetSays(did, did.figures)
            : openingSays(did);
  const said = (u: Unsent) =>
    [title(u), entered(u)].filter(Boolean).join(title(u).endsWith('?') ? ' ' : ', ');
  const settled = (work: Promise<void>) => void work.then(() => outbox.send(client));
</script>

{#if network.down || mine.length}
  <button
    class="btn px-2 btn-sm {settle ? 'btn-error' : 'btn-ghost'}"
    onclick={() => (open = true)}
    aria-label="{network.down ? 'No network. ' : ''}{mine.length} not sent yet{settle
      ? `, ${settle} to settle`
      : ''}"
  >
    <CloudOff size={16} aria-hidden="true" class={settle ? '' : 'text-accent'} />
    <span class="max-[700px]:sr-only"
      >{settle ? `settle ${settle}` : network.down ? 'No network' : 'Sending'}</span
    >
    {#if mine.length && !settle}<span class="font-mono">{mine.length}</span>{/if}
  </button>
{/if}

<Dialog bind:open title="On this device" wide>
  <p>
    {says}
  </p>
  <ul class="mt-4 grid gap-3">
    {#each mine as u (u.id)}
      <li class="border-t border-base-300 pt-3">
        <p class="flex flex-wrap items-baseline justify-between gap-x-4">
          <a
            class="font-semibold"
            href={at(u.siteId, u.did.what === 'look' ? 'confirm' : 'onboard', u.endpointId)}
            onclick={() => (open = false)}>{u.endpoint}</a
          ><span class="quiet text-sm">{hourOf(u.at)}{u.state === 'waits' ? ', not sent yet' : ''}</span>
        </p>
        {#if u.state === 'clash'}
          <p class="caution mt-1">Somebody else did this meanwhile. Which of the two counts?</p>
          <dl class="mt-2 grid gap-3 sm:grid-cols-2">
            <div>
              <dt class="font-semibold">Yours</dt>
              <dd>{said(u)}</dd>
            </div>
            <div>
              <dt class="font-semibold">Theirs</dt>
              <dd>{u.theirs}</dd>
            </div>
          </dl>
          <div class="mt-2 flex gap-2">
            <button class="btn btn-sm" onclick={() => settled(outbox.drop(u.id))}>Theirs counts</button>
            <button class="btn btn-outline btn-sm" onclick={() => settled(outbox.again(u, true))}
              >Mine counts</button
            >
          </div>
        {:else}
          <p>{said(u)}</p>
          {#if u.state === 'refused'}
            <p class="caution mt-1">It was not taken: {u.says}</p>
            <div class="mt-2 flex gap-2">
              <button class="btn btn-sm" onclick={() => settled(outbox.again(u, false))}>Send it again</button
              >
              <button class="btn btn-outline btn-sm" onclick={() => settled(outbox.drop(u.id))}
                >Leave it</button
              >
            </div>
          {:else if u.state === 'look'}
            <p class="caution mt-1">It was sent, and does not hold: {u.says}</p>
            <button class="btn mt-2 btn-sm" onclick={() => settled(outbox.drop(u.id))}>I have seen it</button>
          {/if}
        {/if}
      </li>
    {/each}
  </ul>
</Dialog>
