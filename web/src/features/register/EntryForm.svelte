<script lang="ts">
  import { untrack } from 'svelte';
  import { api, freshKey, ok, type Schemas } from '../../api/client';
  import TextField from '../../ui/TextField.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { registerWork } from './acts.svelte';
  import { listed, type RegistryLine } from './states';

  /** Puts a unit into a registry, or changes name and people of its entry; judged while it is typed. */
  let {
    line,
    rules,
    siteId,
    done,
  }: { line: RegistryLine; rules: Schemas['Rules']; siteId: number; done: () => void } = $props();
  const key = freshKey();
  const work = registerWork(() => siteId);
  const f = $state(
    untrack(() => ({
      name: line.entry.name,
      owner: line.entry.owner,
      shared: line.entry.sharedWith.join(', '),
      reason: '',
      entered: false,
      issued: line.issued,
      issuedUsed: line.issuedUsed,
    })),
  );
  let judged = $state<Schemas['Objection'][]>(untrack(() => line.objections));
  const body = $derived({
    endpointId: line.endpointId,
    name: f.name,
    owner: f.owner,
    sharedWith: listed(f.shared),
    reason: f.reason,
    entered: f.entered,
  });
  const said = (field: string) =>
    judged.find((o) => o.field === field && o.refuses)?.message ?? work.problem?.field(field);
  const questions = $derived(judged.filter((o) => !o.refuses));
  const blocked = $derived(
    judged.filter((o) => o.refuses && !['name', 'owner', 'sharedWith'].includes(o.field)),
  );

  $effect(() => {
    const asked = { ...body, reason: '' };
    const abort = new AbortController();
    const timer = setTimeout(async () => {
      try {
        judged = (
          await ok(
            api.POST('/api/registries/{id}/judgement', {
              params: { path: { id: line.registryId } },
              body: asked,
              signal: abort.signal,
            }),
          )
        ).objections;
      } catch {
        // Unreachable for the moment, or typed on; keeping it will say so.
      }
    }, 180);
    return () => {
      clearTimeout(timer);
      abort.abort();
    };
  });

  // What a service gave out, and what stands where that is used: one unit, one address, one account.
  const keepIssued = () => work.act(line, { act: 'ISSUED', issued: f.issued, issuedUsed: f.issuedUsed });

  const keepPeople = () => {
    const { name, owner, sharedWith, reason } = body;
    return work.act(line, { act: 'CHANGE', name, owner, sharedWith, reason });
  };

  async function keep(event: SubmitEvent) {
    event.preventDefault();
    const issued = f.issued !== line.issued || f.issuedUsed !== line.issuedUsed;
    const kept = line.id
      ? await (issued ? keepIssued() : keepPeople())
      : await work.run(() =>
          ok(
            api.POST('/api/registries/{id}/registrations', {
              params: { path: { id: line.registryId }, header: key },
              body,
            }),
          ),
        );
    if (kept) done();
  }
</script>

<form class="grid gap-x-6 gap-y-3 sm:grid-cols-2" onsubmit={keep}>
  <p class="font-mono text-lg sm:col-span-2" translate="no">
    {line.entry.mac ?? 'no MAC on record'}
    <span class="quiet"
      >{[line.entry.address, line.entry.serial, line.entry.model].filter(Boolean).join(' · ')}</span
    >
  </p>
  <TextField
    label="Name there"
    bind:value={f.name}
    error={said('name')}
    hint={rules.naming === 'HOST_NAME'
      ? 'As a host name, at most ' + rules.longestName + ' characters'
      : 'At most ' + rules.longestName + ' characters'}
  />
  {#if rules.ownerNeeded || f.owner}<TextField
      label="Whose entry it is"
      bind:value={f.owner}
      error={said('owner')}
    />{/if}
  {#if rules.sharing === 'BY_KIND' || f.shared}<TextField
      label="Shared with"
      bind:value={f.shared}
      error={said('sharedWith')}
      hint="Names, parted by commas; none for a personal device"
    />{/if}
  {#if line.id && line.type === 'SERVICE'}
    <TextField
      label="What the service issued"
      bind:value={f.issued}
      error={work.problem?.field('issued')}
      hint="Its sender address or number, never a key"
    />
    <TextField
      label="What stands where that is used"
      bind:value={f.issuedUsed}
      error={work.problem?.field('issuedUsed')}
      hint="Such as the allowed sender in the online account"
    />
  {/if}
  {#if questions.length}
    <div class="sm:col-span-2">
      {#each questions as q (q.code)}<p class="caution">{q.message}</p>{/each}
      <TextField label="Why all the same" bind:value={f.reason} error={work.problem?.field('reason')} />
    </div>
  {/if}
  {#if !line.id && !rules.waitsFor}
    <label class="flex items-baseline gap-2 sm:col-span-2"
      ><input type="checkbox" class="size-4 translate-y-0.5" bind:checked={f.entered} />It stands there
      already: I have entered it myself</label
    >
  {/if}
  <div class="sm:col-span-2">
    {#each blocked as o (o.code)}<p class="mb-2 text-error">{o.message}</p>{/each}
    <Trouble problem={work.problem?.errors.some((e) => e.pointer.length > 1) ? null : work.problem} />
    <button class="btn btn-primary" disabled={work.busy || judged.some((o) => o.refuses)}
      >{line.id ? 'Keep the change' : f.entered ? 'It is registered' : 'Hand it in'}</button
    >
  </div>
</form>
