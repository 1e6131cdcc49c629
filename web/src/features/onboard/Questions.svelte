<script lang="ts">
  import type { Schemas } from '../../api/client';

  /** What must be known of this endpoint to say which steps apply to it. */
  let {
    questions,
    mayWork,
    answer,
  }: {
    questions: Schemas['QuestionView'][];
    mayWork: boolean;
    answer: (facts: Record<string, string>) => void;
  } = $props();
</script>

{#if questions.length}
  <div class="mb-5 grid gap-x-6 gap-y-3 border-b border-base-300 pb-4 sm:grid-cols-2" data-questions>
    {#each questions as q (q.key)}
      <div>
        <label class="field-label" for="question-{q.key}">{q.ask}</label>
        <select
          id="question-{q.key}"
          class="select w-full select-sm"
          value={q.answer}
          disabled={!mayWork}
          onchange={(e) => answer({ [q.key]: e.currentTarget.value })}
        >
          {#each q.options as o (o.value)}<option value={o.value}>{o.label}</option>{/each}
        </select>
        {#if !q.given || q.because}<p class="quiet mt-0.5 text-xs">
            {q.given ? '' : 'Taken as usual; nobody has said yet. '}{q.because}
          </p>{/if}
      </div>
    {/each}
  </div>
{/if}
