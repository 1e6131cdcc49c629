<script lang="ts">
  import { useQueryClient } from '@tanstack/svelte-query';
  import { api, asProblem, ok, type Schemas } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import { outbox } from '../../api/outbox.svelte';
  import Answers from './Answers.svelte';
  import HowKnown from './HowKnown.svelte';
  import Trouble from '../../ui/Trouble.svelte';

  /** One check that only eyes can make, asked so that somebody on the phone can do it. */
  let {
    endpoint,
    check,
    first,
    done,
    leave,
  }: {
    endpoint: Pick<Schemas['EndpointView'], 'siteId' | 'id' | 'name'>;
    check: Schemas['CheckStatusView'];
    /** Whether the figures on the keyboard answer it. */
    first: boolean;
    /** With the line as it stands then, or without one when what was seen is kept here until it can be sent. */
    done: (line?: Schemas['VerificationView']) => void;
    leave?: () => void;
  } = $props();
  type Evidence = Schemas['ObservationRequest']['evidence'];
  let evidence = $state<Evidence>('SEEN');
  const client = useQueryClient();
  const change = useChange();
  const problem = $derived(change.problem);

  async function saw(outcome: Schemas['OutcomeWords']['outcome']) {
    const body = { check: check.check, outcome, evidence };
    const says = check.outcomes.find((o) => o.outcome === outcome)?.words ?? outcome;
    const keep = async () => {
      const did = {
        what: 'look' as const,
        title: check.ask,
        says,
        body: { ...body, restsOn: check.restsOn },
      };
      await outbox.note(endpoint, did);
      done();
    };
    await change.run(async () => {
      // What was done before it is sent before it.
      if (outbox.of(endpoint.id).length) {
        await keep();
        return outbox.send(client);
      }
      const params = { path: { id: endpoint.id } };
      try {
        done(await ok(api.POST('/api/endpoints/{id}/observations', { params, body })));
      } catch (error) {
        if (asProblem(error).status !== 0) throw error;
        await keep();
      }
    });
  }
</script>

<section class="mb-6" aria-label="Look now">
  <p class="quiet text-sm">{check.title}: look for yourself</p>
  <h2 class="mt-1 text-xl leading-tight font-bold">{check.ask}</h2>
  {#each check.signals as signal (signal)}<p class="quiet text-sm">{signal}</p>{/each}
  <Answers outcomes={check.outcomes} answer={saw} keys={first} />
  <HowKnown bind:evidence />
  {#if leave}<button class="btn mt-2 btn-ghost btn-sm" onclick={leave}>Leave it as it is</button>{/if}
  <Trouble {problem} />
</section>
