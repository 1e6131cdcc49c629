<script lang="ts">
  import type { Schemas } from '../../api/client';
  import { minutes, when } from '../../ui/time';

  /** The plan in words: when it is done, how good that is, how sure, and what would help. */
  let { visit, plan }: { visit: Schemas['VisitView']; plan: Schemas['PlanOfVisit'] } = $props();
  /** Another day than that of its beginning is named. */
  const at = (iso: string) => when(iso, Date.parse(plan.from));
  const planned = $derived(visit.head.state === 'PLANNED');
  /** Reckoned for the whole visit: once people are at work it would be of yesterday. */
  const helps = $derived(planned ? plan.helps : []);
  const late = $derived(!!visit.head.due && Date.parse(plan.finish) > Date.parse(visit.head.due));
  const tight = $derived(!!visit.head.due && !late && plan.odds.inTime < 90);
</script>

<section class="mt-4 grid gap-x-10 gap-y-2 lg:grid-cols-[auto_1fr]" aria-label="The plan in words">
  <p class="text-3xl font-bold {late ? 'text-error' : ''}">Done {at(plan.finish)}</p>
  <div class="max-w-3xl">
    <p>
      {plan.bound.best ? 'Nobody can be done earlier' : `Nobody can be done before ${at(plan.bound.at)}`}{plan
        .bound.searched
        ? ''
        : ', reckoned by sums alone'}. One after another it would take {minutes(plan.oneAfterAnother)}. {plan
        .odds.without.length
        ? `Without ${plan.odds.without.join(' and ')} it is done`
        : 'It is done'} on five days of ten by {at(plan.odds.half)}, on nine by {at(plan.odds.nine)}.
    </p>
    {#if visit.head.due}
      <p class={late || tight ? 'font-semibold text-error' : ''}>
        {#if late}That is too late: it must be done by {at(visit.head.due)}. Leave something for another day,
          {helps.length
            ? 'or take what helps'
            : planned
              ? 'or begin earlier'
              : 'or say that it takes longer'}.
        {:else}In {plan.odds.inTime} of 100 days it is done by {at(visit.head.due)}.{/if}
        {#if planned && plan.latest.length}
          At the latest
          {#each plan.latest as l, i (l.who)}{i ? ', ' : ' '}{visit.people[l.who]?.name} begins {at(
              l.at,
            )}{/each}.
        {/if}
      </p>
    {/if}
    {#if helps.length}
      <p>
        What would help: {#each helps as h, i (h.what)}{i ? '; ' : ''}{h.what} saves {minutes(
            h.minutes,
          )}{/each}.
      </p>
    {/if}
    <p class="quiet text-sm">
      {#if plan.known.learned}
        The minutes of {plan.known.learned} of {plan.known.steps} steps are learned from visits before; the others
        are the usual ones of their kind.
      {:else}
        All minutes are the usual ones of each kind; what is learned from visits counts from the eighth time
        on.
      {/if}
    </p>
    {#each plan.obstacles as o (o.unit)}<p class="caution mt-1">{o.text}</p>{/each}
    {#if plan.left.length}
      <p class="caution mt-1">
        {plan.left.join(', ')}
        {plan.left.length === 1 ? 'does' : 'do'} not fit into the hours of those who come: for another day.
      </p>
    {/if}
  </div>
</section>
