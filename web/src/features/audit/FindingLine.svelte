<script lang="ts">
  import { api, ok, type Schemas } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import Knot from '../../ui/Knot.svelte';
  import TextField from '../../ui/TextField.svelte';
  import { dayTime } from '../../ui/time';
  import { draft } from '../../ui/draft.svelte';
  import { at, go, pastAt } from '../../router';
  import WayBack from './WayBack.svelte';
  import { settledAt } from './words';

  /** How one device stands, and the one act that mends it. */
  let {
    siteId,
    finding: f,
    mayWork,
    chosen,
  }: { siteId: number; finding: Schemas['FindingView']; mayWork: boolean; chosen: boolean } = $props();
  const change = useChange(() => [['site', siteId]]);
  let naming = $state(false);
  let what = $state('');
  const path = $derived({ siteId, mac: f.mac });
  const stay = $derived(f.stays[0]);
  const stranger = $derived(f.standing === 'STRANGER' || f.standing === 'GUEST');
  const settled = $derived(settledAt(siteId, f));
  const away = $derived(f.standing === 'AUTOMATIC' || f.standing === 'MOVED');
  let asking = $state(false);

  async function know() {
    const kept = await change.run(() =>
      ok(
        api.PUT('/api/sites/{siteId}/known-macs/{mac}', {
          params: { path },
          body: { at: stay?.at ?? '', what },
        }),
      ),
    );
    if (kept) naming = false;
  }
  function takeIn() {
    draft.stranger = { mac: f.mac, segmentId: f.segmentId };
    void go(at(siteId, 'plan', 'new'));
  }
  const forget = () =>
    change.run(() => ok(api.DELETE('/api/sites/{siteId}/known-macs/{mac}', { params: { path } })));
</script>

<li class="border-b border-base-300 py-3" data-standing={f.standing} aria-current={chosen || undefined}>
  <div class="flex items-start gap-3">
    <Knot state={f.standing === 'KNOWN' || f.standing === 'GUEST' ? 'SKIPPED' : 'FAILED'} size={26} />
    <div class="min-w-0 flex-1">
      <p class="text-[17px] font-semibold">
        {f.name}<span class="font-normal">, {f.words}</span>
      </p>
      <p>{f.says}</p>
      {#if f.act}<p class="mt-0.5 font-medium">{f.act}</p>{/if}
      <p class="quiet mt-1 flex flex-wrap gap-x-4 text-sm">
        {#if f.mac}<span class="font-mono">{f.mac}{stay ? ` at ${stay.at}` : ''}</span>{/if}
        {#if stay}<span>since {dayTime(stay.since)}, last seen {dayTime(stay.last)}</span>{/if}
        {#if f.port}<span>at {f.port}</span>{/if}
        {#if stay}<a class="link" href={pastAt(siteId, { of: f.mac || stay.at })}>where it was before</a>{/if}
        <span>{f.sure} % sure{f.sources.length ? `, by ${f.sources.join(' and ')}` : ''}</span>
      </p>
      {#if away}
        <button
          class="btn mt-2 btn-outline btn-primary btn-sm"
          aria-expanded={asking}
          onclick={() => (asking = !asking)}>What happened, and the way back</button
        >
        {#if asking}<WayBack {siteId} id={f.endpointId} {mayWork} />{/if}
      {/if}
      {#if mayWork}
        <div class="mt-2 flex flex-wrap gap-2">
          {#each settled as { href, words }, i (words)}<a
              class={['btn btn-sm', i ? 'btn-ghost' : 'btn-outline btn-primary']}
              {href}>{words}</a
            >{/each}
          {#if stranger}
            <button class="btn btn-outline btn-primary btn-sm" onclick={takeIn}>Take it in</button>
            <button
              class="btn btn-ghost btn-sm"
              aria-expanded={naming}
              onclick={() => ((naming = !naming), change.clear())}>Say what it is</button
            >
          {:else if f.standing === 'KNOWN'}
            <button class="btn btn-ghost btn-sm" disabled={change.busy} onclick={forget}
              >Not so any more</button
            >
          {/if}
        </div>
      {/if}
      {#if naming}
        <form
          class="mt-2 flex max-w-xl flex-wrap items-end gap-2"
          onsubmit={(ev) => {
            ev.preventDefault();
            void know();
          }}
        >
          <div class="flex-1">
            <TextField
              label="What it is, such as the owner’s phone"
              bind:value={what}
              error={change.problem?.field('what') ?? change.problem?.message}
              autofocus
              required
            />
          </div>
          <button class="btn btn-primary btn-sm" disabled={change.busy}>It is none of ours</button>
        </form>
      {/if}
    </div>
  </div>
</li>
