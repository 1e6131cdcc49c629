<script lang="ts">
  import { api, ok, type Schemas } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import Answers from './Answers.svelte';
  import HowKnown from './HowKnown.svelte';
  import Trouble from '../../ui/Trouble.svelte';

  /** One check that only eyes can make, asked so that somebody on the phone can do it. */
  let {
    endpointId,
    check,
    first,
    done,
    leave,
  }: {
    endpointId: number;
    check: Schemas['CheckStatusView'];
    /** Whether the figures on the keyboard answer it. */
    first: boolean;
    done: (line: Schemas['VerificationView']) => void;
    leave?: () => void;
  } = $props();
  type Evidence = Schemas['ObservationRequest']['evidence'];
  let evidence = $state<Evidence>('SEEN');
  const change = useChange();
  const problem = $derived(change.problem);

  async function saw(outcome: Schemas['OutcomeWords']['outcome']) {
    await change.run(async () => {
      done(
        await ok(
          api.POST('/api/endpoints/{id}/observations', {
            params: { path: { id: endpointId } },
            body: { check: check.check, outcome, evidence },
          }),
        ),
      );
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
