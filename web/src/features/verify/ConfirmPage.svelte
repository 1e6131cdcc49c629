<script lang="ts">
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { api, asProblem, freshKey, ok, type Problem, type Schemas } from '../../api/client';
  import { outbox, withUnsentLooks } from '../../api/outbox.svelte';
  import { lineQuery, runbookQuery, underwayQuery } from '../../api/queries';
  import Lately from '../../ui/Lately.svelte';
  import Loading from '../../ui/Loading.svelte';
  import { dayTime } from '../../ui/time';
  import Steps from '../../ui/Steps.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { at } from '../../router';
  import Causes from './Causes.svelte';
  import { from } from './from';
  import LookNow from './LookNow.svelte';
  import OfficeWord from './OfficeWord.svelte';
  import Pasted from './Pasted.svelte';
  import SignedOff from './SignedOff.svelte';
  import SignOff from './SignOff.svelte';

  let { endpoint, mayWork }: { endpoint: { data: Schemas['EndpointView']; etag: string }; mayWork: boolean } =
    $props();
  const client = useQueryClient();
  const e = $derived(endpoint.data);
  const latest = createQuery(() => lineQuery(e.id));
  const book = createQuery(() => runbookQuery(e.id));
  let asking = $state(false);
  let problem = $state<Problem | null>(null);
  /** A check that somebody wants to look at once more. */
  let again = $state<string | null>(null);
  const underway = createQuery(() => ({ ...underwayQuery(e.id), enabled: asking }));
  const unsent = $derived(outbox.of(e.id));
  const line = $derived(latest.data && withUnsentLooks(latest.data, unsent));
  const checks = $derived(line?.checks ?? []);
  const failed = $derived(checks.find((r) => r.status === 'FAILED' && r.maker !== 'OFFICE'));
  const eyes = $derived(checks.filter((r) => r.maker === 'EYES'));
  const looking = $derived(
    eyes.find((r) => r.check === again) ?? (failed ? undefined : eyes.find((r) => r.status === 'PENDING')),
  );
  /** From where most was measured; said once, and only what was measured elsewhere says so itself. */
  const here = $derived(checks.find((r) => r.check === 'ANSWERS')?.vantage ?? '');
  const steps = $derived(
    checks.map((r) => {
      const soon = underway.data?.results.find((u) => u.check === r.check);
      const waits = asking && r.maker === 'MACHINE';
      if (waits && soon)
        return {
          key: r.check,
          title: r.title,
          status: soon.status,
          note: soon.seen,
          bad: soon.status === 'FAILED',
        };
      return {
        key: r.check,
        title: r.title,
        status: waits ? ('ACTIVE' as const) : r.status,
        note: waits ? 'asking…' : r.note,
        meta: waits ? undefined : from(r, here),
        bad: !waits && (r.status === 'FAILED' || r.loosened !== ''),
      };
    }),
  );
  const headline = $derived(
    asking
      ? 'Asking…'
      : unsent.some((u) => u.did.what === 'look' && u.state === 'waits')
        ? 'Not judged yet: what was seen is not sent'
        : failed
          ? `${e.name} does not reach its service`
          : line?.missing === '' && checks.length
            ? 'All checks hold'
            : line?.at && !line.machineFailed
              ? 'Not proved yet: look for yourself'
              : 'Not proved yet',
  );

  async function check() {
    asking = true;
    problem = null;
    again = null;
    try {
      const answer = await ok(
        api.POST('/api/endpoints/{id}/check-runs', { params: { path: { id: e.id }, header: freshKey() } }),
      );
      client.removeQueries({ queryKey: ['endpoint', e.id, 'diagnosis'] });
      client.setQueryData(['endpoint', e.id, 'line'], answer);
    } catch (error) {
      problem = asProblem(error);
    } finally {
      asking = false;
      client.removeQueries({ queryKey: ['endpoint', e.id, 'underway'] });
    }
    await refresh();
  }

  async function refresh() {
    await client.invalidateQueries({ queryKey: ['endpoint', e.id], exact: true });
    await client.invalidateQueries({ queryKey: ['site', e.siteId] });
  }

  async function seen(answer?: Schemas['VerificationView']) {
    again = null;
    if (!answer) return;
    client.setQueryData(['endpoint', e.id, 'line'], answer);
    await client.invalidateQueries({ queryKey: ['endpoint', e.id, 'diagnosis'] });
    await refresh();
  }
</script>

{#if latest.error}
  <Trouble problem={asProblem(latest.error)} again={() => latest.refetch()} />
{:else if !line}
  <Loading />
{:else if !checks.length}
  <h1>Not ready to be proved</h1>
  <p class="quiet mt-1">Its address, MAC and serial must be on record first.</p>
  <a class="link" href={at(e.siteId, 'onboard', e.id)}>Read its label at Onboard</a>
{:else}
  <h1 aria-live="polite">{headline}</h1>
  <p class="quiet mt-1">
    {line.at
      ? `Last checked ${dayTime(line.at)} by ${line.by}${here ? ', from ' + here : ''}. ${line.missing ? '' : line.gradeWords + '.'}`
      : 'From its light up to its real job. A machine makes some checks, you look at the others.'}
  </p>
  <div class="mt-5 grid gap-8 md:grid-cols-[minmax(0,19rem)_minmax(0,1fr)]">
    <Steps
      {steps}
      current={looking?.check ?? failed?.check ?? null}
      label="Checks"
      choose={mayWork ? (key) => (again = key) : undefined}
    />
    <div class="max-md:order-first">
      {#if looking && !asking && mayWork}
        {#key looking.check}<LookNow
            endpoint={e}
            check={looking}
            first={!failed || !!again}
            done={seen}
            leave={again ? () => (again = null) : undefined}
          />{/key}
      {/if}
      {#if failed && !asking && (line.machineFailed || line.at) && !again}
        {#if failed.check === 'REFUSED'}
          <p class="caution">
            It lets in whom it must refuse. Look at its list of users and at the factory password, then look
            again.
          </p>
        {:else}
          {#key line.at}<Causes siteId={e.siteId} endpointId={e.id} {mayWork} />{/key}
        {/if}
      {/if}
      {#if mayWork}
        <button
          class="btn mt-4 {line.at && !line.machineFailed ? 'btn-outline' : ''} btn-primary"
          data-complete
          disabled={asking}
          onclick={check}>{line.at ? 'Check again' : 'Run the checks'} <kbd>Space</kbd></button
        >
      {/if}
      <Trouble {problem} />
      {#if book.data?.data.handOverWaits.length}
        <section class="caution mt-6" aria-label="The hand-over waits">
          <h2 class="text-base">The hand-over waits</h2>
          <ul>
            {#each book.data.data.handOverWaits as wait (wait)}<li>{wait}</li>{/each}
          </ul>
          <a class="link" href={at(e.siteId, 'onboard', e.id)}>Close it at Onboard</a>
        </section>
      {/if}
      {#if e.confirmedAt}
        <SignedOff endpoint={e} line={latest.data ?? line} failed={!!failed} />
      {:else if unsent.length && mayWork}
        <p class="quiet mt-6">It can be signed off once what was done here is sent.</p>
      {:else if !line.missing && !asking && mayWork}
        <SignOff {endpoint} {line} />
      {/if}
      <OfficeWord endpointId={e.id} {line} done={seen} />
      {#if mayWork}
        <Pasted
          endpointId={e.id}
          weighed={() => void client.invalidateQueries({ queryKey: ['endpoint', e.id, 'diagnosis'] })}
        />
      {/if}
    </div>
  </div>
  <div class="mt-10 max-w-2xl">
    <Lately siteId={e.siteId} endpointId={e.id} />
  </div>
{/if}
