<script lang="ts">
  import { api, ok, type Schemas } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import Dialog from '../../ui/Dialog.svelte';
  import { dayTimeIn } from '../../ui/time';
  import Trouble from '../../ui/Trouble.svelte';
  import LinkOnce from './LinkOnce.svelte';
  import Workplaces from './Workplaces.svelte';
  import { HERE, ROLES, type Role } from './queries';

  /** Somebody who works here, and what a lead can do about it. */
  let { person: p, me }: { person: Schemas['PersonListed']; me: boolean } = $props();
  const change = useChange(() => [['people'], ['session']]);
  const params = $derived({ path: { id: p.id } });
  let closing = $state(false);
  let placing = $state(false);
  let link = $state('');
  const lately = $derived(
    p.closedAt
      ? `Closed since ${dayTimeIn(p.closedAt, HERE)}`
      : (p.lastSeen ? `Signed in last ${dayTimeIn(p.lastSeen, HERE)}` : 'Has not signed in lately') +
          (p.signedIn ? `; signed in now${p.signedIn > 1 ? `, ${p.signedIn} times` : ''}` : ''),
  );
  const where = $derived(
    p.everySite
      ? 'At every site'
      : p.workplaces.length === 1
        ? `Only at ${p.workplaces[0]?.name}`
        : `Only at ${p.workplaces.length} sites`,
  );

  const put = (to: Partial<Schemas['PersonRequest']>) =>
    change.run(async () => {
      await ok(
        api.PUT('/api/people/{id}', {
          params: { ...params, header: { 'If-Match': `"${p.version}"` } },
          body: {
            role: p.role,
            closed: !!p.closedAt,
            everySite: p.everySite,
            sites: p.workplaces.map((w) => w.id),
            ...to,
          },
        }),
      );
      closing = placing = false;
    });
  const signOut = () => change.run(() => ok(api.DELETE('/api/people/{id}/sessions', { params })));
  const newPassword = () =>
    change.run(async () => {
      link = location.origin + (await ok(api.POST('/api/people/{id}/password-link', { params }))).path;
    });
  async function choose(e: Event & { currentTarget: HTMLSelectElement }) {
    const select = e.currentTarget;
    if (!(await put({ role: select.value as Role }))) select.value = p.role;
  }
</script>

<li class="border-b border-base-300 py-3" data-person={p.id}>
  <div class="flex flex-wrap items-center gap-x-4 gap-y-2">
    <div class="min-w-56 flex-1">
      <p class="text-[17px] font-semibold {p.closedAt ? 'quiet' : ''}">
        {p.name}{#if me}<span class="quiet font-normal">, you</span>{/if}
      </p>
      <p class="quiet text-sm">{lately}</p>
      {#if p.role !== 'LEAD' && !p.closedAt}
        <button
          class="link text-sm"
          aria-label="Where {p.name} works: {where}"
          title={p.workplaces.map((w) => w.name).join(', ')}
          onclick={() => (change.clear(), (placing = true))}>{where}</button
        >
      {/if}
    </div>
    {#if p.closedAt}
      <button class="btn btn-sm" disabled={change.busy} onclick={() => put({ closed: false })}
        >Open the account again</button
      >
    {:else}
      <select
        class="select w-60 select-sm"
        aria-label="What {p.name} does"
        value={p.role}
        disabled={change.busy}
        onchange={choose}
      >
        {#each ROLES as r (r.role)}<option value={r.role}>{r.does}</option>{/each}
      </select>
      <div class="flex flex-wrap gap-1">
        {#if !me}
          <button class="btn btn-sm" disabled={change.busy} onclick={newPassword}>New password</button>
          <button class="btn btn-sm" disabled={change.busy || !p.signedIn} onclick={signOut}
            >Sign out everywhere</button
          >
        {/if}
        <button class="btn btn-sm" disabled={change.busy || closing} onclick={() => (closing = true)}
          >Close the account</button
        >
      </div>
    {/if}
  </div>
  {#if closing}
    <div class="mt-2 border-l-4 border-warning bg-base-200 px-3 py-2">
      <p>
        {p.name} is signed out at once and cannot come in again until it is opened. The name stays in the log.
      </p>
      <button class="btn mt-2 btn-primary btn-sm" disabled={change.busy} onclick={() => put({ closed: true })}
        >Close it</button
      >
      <button class="btn mt-2 btn-ghost btn-sm" onclick={() => (closing = false)}>Leave it open</button>
    </div>
  {/if}
  {#if link}<LinkOnce {link} whom={p.name} />{/if}
  <Dialog bind:open={placing} title="Where {p.name} works">
    {#if placing}
      <Workplaces
        person={p}
        busy={change.busy}
        problem={change.problem}
        keep={(everySite, sites) => put({ everySite, sites })}
      />
    {/if}
  </Dialog>
  {#if change.problem && !placing}<Trouble problem={change.problem} />{/if}
</li>
