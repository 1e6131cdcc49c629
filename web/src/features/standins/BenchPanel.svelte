<script lang="ts">
  import FlaskConical from '@lucide/svelte/icons/flask-conical';
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { api, asProblem, ok, type Problem, type Schemas } from '../../api/client';
  import { benchQuery, endpointQuery } from '../../api/queries';
  import Services from './Services.svelte';
  import Dialog from '../../ui/Dialog.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { route } from '../../router';

  type Device = Schemas['Device'];
  const client = useQueryClient();
  let open = $state(false);
  let picked = $state('');
  let typed = $state<Record<string, string>>({});
  let problem = $state<Problem | null>(null);
  const panel = createQuery(() => ({ ...benchQuery, enabled: open }));
  const chosen = $derived(Number((route.params as { endpoint?: string }).endpoint) || 0);
  const endpoint = createQuery(() => ({ ...endpointQuery(chosen), enabled: open && chosen > 0 }));
  const devices = $derived(panel.data?.devices ?? []);
  const device = $derived<Device | undefined>(
    devices.find((d) => d.id === picked) ??
      devices.find((d) => d.serial === endpoint.data?.data.serial) ??
      devices.find((d) => d.name === endpoint.data?.data.name) ??
      devices.find((d) => d.id === 'till-4'),
  );

  async function run(call: Promise<Schemas['Panel']>) {
    try {
      client.setQueryData(['bench'], await call);
      problem = null;
      typed = {};
    } catch (error) {
      problem = asProblem(error);
    }
  }
  type Fault = Device['possible'][number];
  const title = (f: Fault) => panel.data?.faults.find((v) => v.fault === f)?.label ?? f;
  function upset(fault: Fault, on: boolean) {
    const target = { params: { path: { id: device?.id ?? '', fault } } };
    void run(
      ok(
        on
          ? api.PUT('/api/bench-panel/{id}/faults/{fault}', target)
          : api.DELETE('/api/bench-panel/{id}/faults/{fault}', target),
      ),
    );
  }
  const path = (id: string) => ({ params: { path: { id } } });
</script>

<button class="btn btn-ghost px-2 btn-sm" onclick={() => (open = true)}
  ><FlaskConical size={16} aria-hidden="true" /><span class="max-[500px]:sr-only">Bench</span></button
>
<Dialog bind:open title="Bench panel of the demo" wide>
  {#if panel.error}<Trouble problem={asProblem(panel.error)} />{/if}
  {#if device}
    <label class="field-label" for="device">Device in your hand</label>
    <select
      id="device"
      class="select w-full max-w-md"
      value={device.id}
      onchange={(e) => ((picked = e.currentTarget.value), (typed = {}), (problem = null))}
    >
      {#each new Set(devices.map((d) => d.net)) as net (net)}
        <optgroup label={net}>
          {#each devices.filter((d) => d.net === net) as d (d.id)}<option value={d.id}>{d.name}</option
            >{/each}
        </optgroup>
      {/each}
    </select>
    <div class="mt-5 grid gap-8 md:grid-cols-2">
      <section aria-label="The device">
        <h3 class="font-bold">Its label</h3>
        <div
          class="mt-1 rounded border-2 border-double border-base-content p-3 font-mono"
          translate="no"
          data-label
        >
          MAC {device.mac}<br />S/N {device.serial}
        </div>
        <h3 class="mt-4 font-bold">Its screen</h3>
        <p class="mt-1 rounded bg-neutral p-3 font-mono text-neutral-content" role="status" data-screen>
          {device.screen}
        </p>
        {#if device.clock}<p class="mt-1 rounded bg-neutral px-3 py-1 font-mono text-neutral-content">
            {device.clock}
          </p>{/if}
        {#if device.lights.length}
          <ul class="mt-2 text-sm" aria-label="Its lights">
            {#each device.lights as light (light)}<li>{light}</li>{/each}
          </ul>
        {/if}
        <button
          class="btn mt-3 btn-outline btn-primary btn-sm"
          onclick={() => run(ok(api.POST('/api/bench-panel/{id}/restart', path(device.id))))}
          >Restart it</button
        >
        <h3 class="mt-5 font-bold">What one sees there</h3>
        <dl class="mt-1 max-h-56 overflow-y-auto border-y border-base-300 text-sm" tabindex="-1">
          {#each device.questions as l (l.question)}
            <div class="flex justify-between gap-3 py-0.5" data-look={l.question}>
              <dt class="quiet">{l.words}</dt>
              <dd class="shrink-0 font-semibold">{l.seen}</dd>
            </div>
          {/each}
        </dl>
        <h3 class="mt-5 font-bold">Upset it</h3>
        {#each device.faults as f (f)}
          <p class="flex items-center justify-between gap-3 py-1">
            {title(f)}<button class="btn btn-outline btn-primary btn-sm" onclick={() => upset(f, false)}
              >Mend it</button
            >
          </p>
        {/each}
        <label class="field-label" for="fault">Something that goes wrong</label>
        <select
          id="fault"
          class="select w-full"
          value=""
          onchange={(e) => {
            const f = e.currentTarget.value as Fault;
            e.currentTarget.value = '';
            if (f) upset(f, true);
          }}
        >
          <option value="">Choose what goes wrong</option>
          {#each device.possible.filter((p) => !device.faults.includes(p)) as f (f)}<option value={f}
              >{title(f)}</option
            >{/each}
        </select>
      </section>
      <form
        aria-label="Its menu"
        onsubmit={(e) => {
          e.preventDefault();
          void run(
            ok(
              api.PUT('/api/bench-panel/{id}/menu', {
                ...path(device.id),
                body: { ...device.typed, ...typed },
              }),
            ),
          );
        }}
      >
        <h3 class="font-bold">Its menu</h3>
        {#each Object.entries(device.typed) as [label, value] (label)}
          <label class="mt-1 grid grid-cols-[8rem_1fr] items-center gap-2 text-sm"
            >{label}<input
              class="input font-mono input-sm"
              value={typed[label] ?? value}
              oninput={(e) => (typed[label] = e.currentTarget.value)}
              autocomplete="off"
            /></label
          >
        {/each}
        <Trouble {problem} />
        <button class="btn mt-3 btn-outline btn-primary btn-sm">Save in the device</button>
        <p class="quiet mt-1 text-sm">Takes hold with the next restart.</p>
      </form>
    </div>
    <Services />
  {/if}
</Dialog>
