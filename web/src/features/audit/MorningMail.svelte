<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, asProblem, ok, type Schemas } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import Loading from '../../ui/Loading.svelte';
  import TextField from '../../ui/TextField.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { morningMailQuery } from './queries';

  /** Where the report of the morning goes by mail, for all sites together. */
  const mail = createQuery(() => morningMailQuery);
  const change = useChange(() => [['morning-mail']]);
  const problem = $derived(change.problem);
  type Typed = { host: string; port: string; secured: boolean; sender: string; recipients: string };
  let typed = $state<Typed>();
  let sent = $state(false);

  function open(m: Schemas['MorningMailView']) {
    sent = false;
    change.clear();
    typed = {
      host: m.host,
      port: String(m.port),
      secured: m.secured,
      sender: m.sender,
      recipients: m.recipients.split('\n').join(', '),
    };
  }
  async function keep(t: Typed) {
    const body = { ...t, port: Number(t.port) || 0 };
    if (await change.run(() => ok(api.PUT('/api/morning-mail', { body })))) typed = undefined;
  }
  const trial = async () => (sent = await change.run(() => ok(api.POST('/api/morning-mail/trial'))));
  const end = () => change.run(() => ok(api.DELETE('/api/morning-mail')));
</script>

<section aria-label="By mail">
  <h2>By mail</h2>
  {#if mail.error}
    <Trouble problem={asProblem(mail.error)} again={() => mail.refetch()} />
  {:else if !mail.data}
    <Loading />
  {:else if typed}
    {@const t = typed}
    <form
      class="mt-2 grid max-w-md gap-3"
      onsubmit={(ev) => {
        ev.preventDefault();
        void keep(t);
      }}
    >
      <div class="grid grid-cols-[2fr_1fr] items-start gap-3">
        <TextField label="Relay" mono autofocus required bind:value={t.host} error={problem?.field('host')} />
        <TextField
          label="Port"
          mono
          mode="numeric"
          required
          bind:value={t.port}
          error={problem?.field('port')}
        />
      </div>
      <TextField label="Sender" required bind:value={t.sender} error={problem?.field('sender')} />
      <TextField
        label="Recipients"
        required
        hint="imke@office.example, joris@office.example"
        bind:value={t.recipients}
        error={problem?.field('recipients')}
      />
      <label class="flex items-center gap-2"
        ><input type="checkbox" class="checkbox checkbox-sm" bind:checked={t.secured} /> Only over a secured line
        (STARTTLS)</label
      >
      <p class="quiet text-sm">
        The relay must let this machine send without a sign-in: Knot Tag keeps no mail password.
      </p>
      <div class="flex flex-wrap gap-3">
        <button class="btn btn-primary btn-sm" disabled={change.busy}>Keep</button>
        <button type="button" class="btn btn-ghost btn-sm" onclick={() => (typed = undefined)}
          >Leave it</button
        >
      </div>
    </form>
  {:else}
    {@const m = mail.data}
    {#if m.on}
      <p class="mt-1">
        One report each morning for all sites, to {m.recipients.split('\n').join(', ')}, over
        <span class="font-mono break-all">{m.host}</span>.
      </p>
      {#if m.trouble}<p class="caution mt-2">{m.trouble}</p>{/if}
      {#if sent}<p class="mt-2" role="status">The relay took the trial. Look whether it arrives.</p>{/if}
      <p class="mt-2 flex flex-wrap gap-3">
        <button class="btn btn-outline btn-sm" onclick={trial} disabled={change.busy}>Send a trial</button>
        <button class="btn btn-outline btn-sm" onclick={() => open(m)}>Change</button>
        <button class="btn btn-ghost btn-sm" onclick={end} disabled={change.busy}>No mail any more</button>
      </p>
    {:else}
      <p class="mt-1">The report can come by mail, too: one each morning, for all sites.</p>
      <button class="btn mt-2 btn-outline btn-sm" onclick={() => open(m)}>Send it by mail</button>
    {/if}
  {/if}
  <Trouble problem={typed ? (problem?.errors.length ? null : problem) : problem} />
</section>
