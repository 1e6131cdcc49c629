<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, ok, type Schemas } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import { sessionQuery } from '../../api/queries';
  import Trouble from '../../ui/Trouble.svelte';
  import { readyQuery } from './queries';

  /** What one is good at, where minutes go, and who may see for what one is ready. */
  let { practice }: { practice: Schemas['PracticeView'] } = $props();
  const session = createQuery(() => sessionQuery);
  const lead = $derived(session.data?.role === 'LEAD');
  const others = createQuery(() => ({ ...readyQuery, enabled: lead }));
  const change = useChange(() => [['practice']]);
  const parts = $derived([
    { title: 'By device', lines: practice.kinds },
    { title: 'By where the cause was', lines: practice.places },
  ]);
  const words = (levels: Schemas['PracticeReady']['levels'][number][]) =>
    levels.length
      ? 'ready for ' +
        levels.map((l) => practice.levels.find((v) => v.level === l)?.words ?? '').join('; for ')
      : 'not ready for any level yet';
  const show = (shown: boolean) =>
    change.run(() => ok(api.PUT('/api/me/practice-shown', { body: { shown } })));
</script>

{#if practice.results.length}
  <section class="mt-8">
    <h2>Where your minutes go</h2>
    <p class="quiet max-w-2xl text-sm">
      Of the latest five of each. Lost are the minutes beyond the best search, and all of them when something
      else was named.
    </p>
    <div class="mt-2 grid gap-x-10 gap-y-4 md:grid-cols-2">
      {#each parts as part (part.title)}
        <table class="w-full self-start">
          <thead>
            <tr class="border-b-2 border-base-content text-left text-sm">
              <th class="py-1">{part.title}</th><th class="text-right">Cases</th><th class="text-right"
                >Of the best</th
              ><th class="text-right">Lost each</th>
            </tr>
          </thead>
          <tbody>
            {#each part.lines.slice(0, 8) as p (p.title)}
              <tr class="border-b border-base-300">
                <td class="py-1 pr-2">{p.title.slice(0, 1).toUpperCase() + p.title.slice(1)}</td>
                <td class="text-right font-mono">{p.played}</td>
                <td class="text-right font-mono">{Math.round(p.score * 100)} %</td>
                <td class="text-right font-mono">{p.lost.toFixed(1)} min</td>
              </tr>
            {/each}
          </tbody>
        </table>
      {/each}
    </div>
  </section>
{/if}
<section class="mt-8">
  <h2>What you are ready for</h2>
  <p>
    By your last five cases of each level, you are {words(practice.ready)}. Ready is who found all five, near
    the best.
  </p>
  <label class="mt-2 flex items-center gap-3">
    <input
      type="checkbox"
      class="checkbox"
      checked={practice.shown}
      disabled={change.busy}
      onchange={async (e) => {
        const box = e.currentTarget;
        if (!(await show(box.checked))) box.checked = practice.shown;
      }}
    />
    Leads may see this sentence of me, and nothing else
  </label>
  <Trouble problem={change.problem} />
</section>
{#if lead && others.data?.length}
  <section class="mt-8">
    <h2>Who lets you see it</h2>
    <ul>
      {#each others.data as o (o.name)}
        <li class="border-b border-base-300 py-1">
          <span class="font-semibold">{o.name}</span>: {words(o.levels)}
        </li>
      {/each}
    </ul>
  </section>
{/if}
