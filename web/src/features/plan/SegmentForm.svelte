<script lang="ts">
  import { untrack } from 'svelte';
  import { createQuery } from '@tanstack/svelte-query';
  import { api, freshKey, ok, type Schemas } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import ReadField from '../../ui/ReadField.svelte';
  import TextField from '../../ui/TextField.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { readAddress } from '../../api/readers';
  import { madeFrom } from '../../ui/madeFrom.svelte';
  import Meanwhile from '../../ui/Meanwhile.svelte';
  import { METHODS } from './methods';
  import ResolverHelp from './ResolverHelp.svelte';
  import SegmentExtras from './SegmentExtras.svelte';
  import { segmentBody, segmentTyped } from './segment';

  type Segment = Schemas['SheetSegment'];
  let {
    siteId,
    segment,
    etag = '',
    done,
  }: { siteId: number; segment?: Segment; etag?: string; done?: () => void } = $props();
  const key = freshKey();
  const schemes = createQuery(() => ({ queryKey: ['schemes'], queryFn: () => ok(api.GET('/api/schemes')) }));
  const initial = () => segmentTyped(segment);
  let f = $state(initial());
  const made = madeFrom(
    untrack(() => f),
    initial,
    () => etag,
  );
  let like = $state(0);
  const special = () => !!(segment?.vlan || segment?.prefix6 || segment?.notes);
  let more = $state(special());
  const change = useChange(
    () => [['site', siteId]],
    () => ['site', siteId, 'sheet'],
  );
  const problem = $derived(change.problem);
  const body = $derived({ ...segmentBody(f), likeSegmentId: like || undefined });

  async function run(work: () => Promise<unknown>) {
    if (await change.run(work)) done?.();
  }

  const save = () =>
    run(() =>
      segment
        ? ok(
            api.PUT('/api/sites/{siteId}/segments/{id}', {
              params: { path: { siteId, id: segment.id }, header: { 'If-Match': made.etag } },
              body,
            }),
          )
        : ok(api.POST('/api/sites/{siteId}/segments', { params: { path: { siteId }, header: key }, body })),
    );

  async function layOut() {
    if (!like) return;
    const laid = await change.run(async () => {
      const filled = await ok(
        api.GET('/api/schemes/{segmentId}', {
          params: { path: { segmentId: like }, query: { prefix: f.prefix } },
        }),
      );
      f.gateway = filled.gateway ?? '';
      [f.first = '', f.second = ''] = filled.resolvers;
      f.pools = filled.pools.length ? filled.pools : [{ from: '', to: '' }];
    });
    if (!laid) like = 0;
  }
</script>

<form
  onsubmit={(e) => {
    e.preventDefault();
    void save();
  }}
  class="grid gap-x-6 gap-y-2 sm:grid-cols-2"
  aria-label={segment ? 'Change the segment' : 'New segment'}
>
  <TextField
    label="Name"
    bind:value={f.name}
    error={problem?.field('name')}
    hint="Such as Shop floor"
    required
  />
  <ReadField
    label="Prefix"
    bind:value={f.prefix}
    read={readAddress('PREFIX')}
    error={problem?.field('prefix')}
    hint="Such as 10.44.16.0/24"
  />
  {#if !segment && schemes.data?.length}
    <div class="sm:col-span-2">
      <label class="field-label" for="like">Lay it out like</label>
      <select id="like" class="select w-full max-w-md" bind:value={like} onchange={layOut}>
        <option value={0}>nothing, I type it in</option>
        {#each schemes.data as s (s.segmentId)}<option value={s.segmentId}
            >{s.name}, a /{s.prefixLength}</option
          >{/each}
      </select>
    </div>
  {/if}
  <ReadField
    label="Gateway"
    bind:value={f.gateway}
    read={readAddress('GATEWAY')}
    error={problem?.field('gateway')}
  />
  <ReadField
    label="First resolver"
    bind:value={f.first}
    read={readAddress('RESOLVER')}
    error={problem?.field('resolvers')}
  />
  <ReadField label="Second resolver" bind:value={f.second} read={readAddress('RESOLVER')} />
  <ResolverHelp
    own={f.first}
    take={([first = '', second = '']) => ((f.first = first), (f.second = second))}
  />
  <div>
    <label class="field-label" for="segment-method">Who keeps addresses here</label>
    <select id="segment-method" class="select w-full" bind:value={f.method}>
      {#each Object.entries(METHODS) as [value, words] (value)}<option {value}>{words}</option>{/each}
    </select>
    <label class="mt-2 flex items-center gap-2 text-sm"
      ><input type="checkbox" bind:checked={f.canReserve} />The DHCP server can reserve by MAC</label
    >
  </div>
  {#each f.pools as pool, i (i)}
    <ReadField
      label={i === 0 ? 'Handed out automatically from' : 'And from'}
      bind:value={pool.from}
      read={readAddress('ADDRESS')}
      error={problem?.field(`pools/${i}/from`)}
    />
    <ReadField
      label="to"
      bind:value={pool.to}
      read={readAddress('ADDRESS')}
      error={problem?.field(`pools/${i}/to`)}
    />
  {/each}
  {#if !segment}
    <TextField
      label="Numbered series"
      bind:value={f.series}
      error={problem?.field('seriesName')}
      hint="Till, to have numbered payment terminals"
    />
    <div class="grid grid-cols-2 gap-4">
      <TextField
        label="Host = number +"
        bind:value={f.hostBase}
        error={problem?.field('seriesHostBase')}
        hint="Such as 50"
      />
      <TextField label="Port = number +" bind:value={f.portBase} hint="Such as 7450" />
    </div>
  {/if}
  {#if more}<SegmentExtras bind:f {problem} />{/if}
  <div class="sm:col-span-2">
    {#if segment}<Meanwhile {made} />{/if}
    <Trouble problem={problem?.errors.length === 1 && problem.status === 422 ? null : problem} />
    <div class="mt-1 flex flex-wrap gap-2">
      <button class="btn btn-primary">{segment ? 'Keep the change' : 'Add the segment'}</button>
      <button type="button" class="btn btn-ghost" onclick={() => f.pools.push({ from: '', to: '' })}
        >One more pool</button
      >
      {#if !more}<button type="button" class="btn btn-ghost" onclick={() => (more = true)}
          >VLAN, IPv6, lease, notes</button
        >{/if}
      {#if segment}<button
          type="button"
          class="btn ml-auto btn-outline btn-error"
          onclick={() =>
            run(() =>
              ok(
                api.DELETE('/api/sites/{siteId}/segments/{id}', {
                  params: { path: { siteId, id: segment.id }, header: { 'If-Match': made.etag } },
                }),
              ),
            )}>Remove it</button
        >{/if}
    </div>
  </div>
</form>
