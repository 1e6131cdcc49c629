<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { api, asProblem, ok, type Schemas } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import Loading from '../../ui/Loading.svelte';
  import TextField from '../../ui/TextField.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { dayTime } from '../../ui/time';
  import { at } from '../../router';
  import { packsQuery, readinessQuery } from './queries';
  import SignPack from './SignPack.svelte';

  /** The packs of a site: to look at, to sign, and those that were signed. */
  let { siteId, mayWork, lead }: { siteId: number; mayWork: boolean; lead: boolean } = $props();
  type Type = Schemas['SignedPack']['type'];
  const TYPES: [Type, string, string][] = [
    [
      'CLIENT',
      'For the client',
      'In plain words: what stands where, what it does, what to do when it fails, whom to call, what to leave alone.',
    ],
    [
      'TECHNICIAN',
      'For the next technician',
      'Networks, addresses, wiring, registries, firewall rules; device by device what was entered, proved and left open; ' +
        'and how the cause is found when one is silent.',
    ],
    ['OFFICE', 'For the office', 'One list of all devices.'],
  ];
  const NAMES = Object.fromEntries(TYPES.map(([type, name]) => [type, name]));
  const client = useQueryClient();
  const packs = createQuery(() => packsQuery(siteId));
  const ready = createQuery(() => readinessQuery(siteId));
  const change = useChange();
  let help = $state<string>();
  let signing = $state<Type>();
  const left = $derived((ready.data?.endpoints.length ?? 0) - (ready.data?.ready ?? 0));

  const keepHelp = () =>
    change.run(async () => {
      const body = { help: help ?? '' };
      const kept = await ok(
        api.PUT('/api/sites/{siteId}/packs/help', { params: { path: { siteId } }, body }),
      );
      client.setQueryData(packsQuery(siteId).queryKey, kept);
      help = undefined;
    });
</script>

<h1>Packs</h1>
{#if packs.error}
  <Trouble problem={asProblem(packs.error)} again={() => packs.refetch()} />
{:else if !packs.data}
  <Loading />
{:else}
  {#if mayWork}
    <form
      class="mt-3 flex max-w-2xl flex-wrap items-end gap-2"
      onsubmit={(e) => {
        e.preventDefault();
        void keepHelp();
      }}
    >
      <div class="flex-1">
        <TextField
          label="Whom the client calls when something fails"
          bind:value={() => help ?? packs.data?.help ?? '', (text) => (help = text)}
          error={change.problem?.field('help')}
          hint="Name, number and hours, as they shall read them"
        />
      </div>
      {#if help !== undefined && help !== packs.data.help}<button
          class="btn mb-7 btn-primary btn-sm"
          disabled={change.busy}>Keep it</button
        >{/if}
    </form>
  {/if}
  {#if left}
    <p class="caution mt-3">
      {left === 1
        ? 'One device is not ready: it stands in the packs as not finished, and is not handed over.'
        : `${left} devices are not ready: they stand in the packs as not finished, and are not handed over.`}
      <a class="link" href={at(siteId, 'handover')}>What is left</a>
    </p>
  {/if}
  <ul class="mt-2 max-w-3xl">
    {#each TYPES as [type, name, about] (type)}
      <li class="border-b border-base-300 py-4">
        <div class="flex flex-wrap items-center gap-2">
          <h2 class="mr-auto">{name}</h2>
          <a
            class="btn btn-ghost btn-sm"
            href="/api/sites/{siteId}/packs/{type}.html"
            target="_blank"
            rel="noreferrer">Look at it</a
          >
          <a class="btn btn-outline btn-primary btn-sm" href="/api/sites/{siteId}/packs/{type}.pdf" download
            >As PDF</a
          >
          {#if mayWork && type !== 'OFFICE'}<button
              class="btn btn-primary btn-sm"
              aria-expanded={signing === type}
              disabled={type === 'CLIENT' && !ready.data?.ready}
              title={type === 'CLIENT' && !ready.data?.ready
                ? 'No device is ready to be handed over'
                : undefined}
              onclick={() => (signing = signing === type ? undefined : type)}>Sign it</button
            >{/if}
        </div>
        <p class="quiet mt-1">{about}</p>
        {#if signing === type}{#key type}<SignPack
              {siteId}
              {type}
              ready={ready.data?.ready ?? 0}
              done={() => (signing = undefined)}
            />{/key}{/if}
      </li>
    {/each}
  </ul>
  {#if lead}<p class="mt-6">
      <a class="link" href="/api/sites/{siteId}/site.zip" download>The whole site as one file</a>
      <span class="quiet text-sm">for another machine that has no site yet</span>
    </p>{/if}
  <h2 class="mt-8">Signed</h2>
  <ul class="mt-1 max-w-3xl" aria-label="Signed packs">
    {#each packs.data.signed as p (p.id)}
      <li class="flex flex-wrap items-baseline gap-x-3 border-b border-base-300 py-2">
        <a class="link font-semibold" href="/api/packs/{p.id}.pdf" download>{NAMES[p.type]}</a>
        <span>signed by {p.signer}, {dayTime(p.at)}</span>
        <span class="quiet text-sm"
          >{p.endpoints === 1 ? 'one device' : `${p.endpoints} devices`}, before {p.by}</span
        >
      </li>
    {:else}
      <li class="quiet">None yet. A signed pack is kept just as it was.</li>
    {/each}
  </ul>
{/if}
