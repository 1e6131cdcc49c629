<script lang="ts">
  import { untrack } from 'svelte';
  import { createQuery } from '@tanstack/svelte-query';
  import { api, ok, type Schemas } from '../../api/client';
  import { endpointsQuery, mediaQuery } from '../../api/queries';
  import ReadField from '../../ui/ReadField.svelte';
  import TextField from '../../ui/TextField.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { readMac } from '../../api/readers';
  import { registerWork } from './acts.svelte';

  type Face = Schemas['InterfaceView'];
  let {
    endpoint,
    faces,
    done,
  }: {
    endpoint: { data: Schemas['EndpointView']; etag: string };
    faces: Face[];
    done: () => void;
  } = $props();
  const e = $derived(endpoint.data);
  const work = registerWork(
    () => e.siteId,
    () => ['endpoint', e.id],
  );
  const media = createQuery(() => mediaQuery);
  const list = $state(
    untrack(() =>
      faces.length
        ? faces.map((f) => ({ medium: f.medium, mac: f.mac as string, standsAt: f.standsAt }))
        : [{ medium: 'WIRED' as Face['medium'], mac: '', standsAt: '' }],
    ),
  );
  let counts = $state(
    untrack(() =>
      Math.max(
        0,
        faces.findIndex((f) => f.counts),
      ),
    ),
  );
  const adapter = $derived(faces.find((f) => f.medium === 'ADAPTER'));
  const endpoints = createQuery(() => endpointsQuery(e.siteId));
  let to = $state(0);
  let said = $state<string[]>([]);
  const header = $derived({ 'If-Match': endpoint.etag });

  const free = () => media.data?.find((m) => !list.some((l) => l.medium === m.medium))?.medium ?? 'WIRELESS';

  async function keep(event: SubmitEvent) {
    event.preventDefault();
    const kept = await work.run(() =>
      ok(
        api.PUT('/api/endpoints/{id}/interfaces', {
          params: { path: { id: e.id }, header },
          body: { interfaces: list.map((l, i) => ({ ...l, counts: i === counts })) },
        }),
      ),
    );
    if (kept) done();
  }
  const move = () =>
    work.run(async () => {
      said = (
        await ok(
          api.POST('/api/interfaces/{id}/moves', {
            params: { path: { id: adapter?.id ?? 0 }, header },
            body: { endpointId: to },
          }),
        )
      ).said;
    });
</script>

{#if said.length}
  <h3 class="font-bold">The adapter has moved</h3>
  <ul class="mt-2 grid gap-2">
    {#each said as line (line)}<li>{line}</li>{/each}
  </ul>
  <button class="btn mt-4 btn-primary" onclick={done}>Done</button>
{:else}
  <form onsubmit={keep}>
    <p class="quiet text-sm">
      The one in use is what a registration must hold. A label often shows another, mostly the next number.
    </p>
    {#each list as face, i (i)}
      <fieldset
        class="mt-3 grid gap-x-4 gap-y-1 border-t border-base-300 pt-2 sm:grid-cols-[9rem_1fr_1fr_auto]"
      >
        <legend class="sr-only">Interface {i + 1}</legend>
        <div>
          <label class="field-label" for="medium-{i}">Interface</label>
          <select id="medium-{i}" class="select w-full" bind:value={face.medium}>
            {#each media.data ?? [] as m (m.medium)}<option value={m.medium}>{m.words}</option>{/each}
          </select>
          <label class="mt-1 flex items-center gap-2 text-sm"
            ><input type="radio" class="radio radio-sm" name="counts" value={i} bind:group={counts} />in use</label
          >
        </div>
        <ReadField
          label="MAC"
          bind:value={face.mac}
          read={readMac(e.siteId, e.id)}
          error={work.problem?.field(`interfaces/${i}/mac`)}
        />
        <TextField
          label="Where it stands"
          bind:value={face.standsAt}
          error={work.problem?.field(`interfaces/${i}/standsAt`) ??
            work.problem?.field(`interfaces/${i}/medium`)}
        />
        {#if list.length > 1}<button
            type="button"
            class="link self-start pt-8 text-sm text-error"
            onclick={() => (list.splice(i, 1), counts >= list.length && (counts = 0))}
            aria-label="Leave out interface {i + 1}">Leave out</button
          >{/if}
      </fieldset>
    {/each}
    <button
      type="button"
      class="mt-2 link text-sm text-primary"
      onclick={() => list.push({ medium: free(), mac: '', standsAt: '' })}>Another interface</button
    >
    <Trouble
      problem={work.problem?.errors.some((x) => x.pointer.startsWith('/interfaces/')) ? null : work.problem}
    />
    <div class="mt-4"><button class="btn btn-primary" disabled={work.busy}>Keep the interfaces</button></div>
  </form>
  {#if adapter}
    <div class="mt-6 border-t border-base-300 pt-3">
      <label class="field-label" for="adapter-to">The adapter {adapter.mac} is now at another device</label>
      <div class="flex flex-wrap gap-2">
        <select id="adapter-to" class="select w-full max-w-xs" bind:value={to}>
          <option value={0}>choose it</option>
          {#each (endpoints.data ?? []).filter((x) => x.id !== e.id) as x (x.id)}<option value={x.id}
              >{x.name}</option
            >{/each}
        </select>
        <button class="btn btn-outline btn-primary" disabled={!to || work.busy} onclick={move}
          >Move the adapter</button
        >
      </div>
    </div>
  {/if}
{/if}
