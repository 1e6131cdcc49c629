<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { endpointsQuery } from '../api/queries';
  import Dialog from '../ui/Dialog.svelte';
  import { at, go, route, type StationPath } from '../router';

  let { siteId, mayWork }: { siteId: number; mayWork: boolean } = $props();
  const STATION_KEYS: Record<string, StationPath> = {
    p: 'plan',
    r: 'register',
    o: 'onboard',
    c: 'confirm',
    h: 'handover',
    a: 'audit',
  };
  const LIST: [string, string][] = [
    ['/ or Ctrl K', 'find an endpoint'],
    ['g then p, r, o, c, h, a', 'go to Plan, Register, Onboard, Confirm, Hand over, Audit'],
    ['g then t', 'go to Today, at all sites'],
    ['j and k', 'next and previous endpoint'],
    ['n', 'add an endpoint'],
    ['Space', 'finish the current step, or check again'],
    ['1, 2, 3', 'choose what you see'],
    ['Esc', 'leave the field, so that these keys work'],
    ['+ and -, arrows, 0', 'on the tape: closer and wider, along, the whole'],
    ['Enter', 'do what the marked button says'],
    ['?', 'show this list'],
  ];
  const endpoints = createQuery(() => endpointsQuery(siteId));
  let open = $state(false);
  let going = $state(false);

  function step(by: number) {
    const params = route.params as { station?: StationPath; endpoint?: string };
    const ids = endpoints.data?.map((e) => e.id) ?? [];
    const next = ids[(ids.indexOf(Number(params.endpoint)) + by + ids.length) % ids.length];
    if (next) go(at(siteId, params.station ?? 'plan', next));
  }

  function press(e: KeyboardEvent) {
    const target = e.target as HTMLElement;
    // Out of a field, so that the keys work again.
    if (e.key === 'Escape' && target.closest('main input, main textarea, main select')) {
      target.blur();
      return;
    }
    if (e.ctrlKey || e.metaKey || e.altKey || target.closest('input, textarea, select, dialog')) return;
    if (going) {
      going = false;
      if (e.key === 't') go('/today');
      const station = STATION_KEYS[e.key];
      const endpoint = Number((route.params as { endpoint?: string }).endpoint);
      if (station) go(at(siteId, station, endpoint || undefined));
      return;
    }
    if (e.key === 'g') going = true;
    else if (e.key === 'j') step(1);
    else if (e.key === 'k') step(-1);
    else if (e.key === '?') open = true;
    else if (e.key === 'n' && mayWork) go(at(siteId, 'plan', 'new'));
    else if (e.key === ' ' && !target.closest('button, a, summary')) {
      const button = document.querySelector<HTMLButtonElement>('button[data-complete]:not(:disabled)');
      if (!button) return;
      button.click();
    } else return;
    e.preventDefault();
  }
</script>

<svelte:window onkeydown={press} />
<Dialog bind:open title="Keys">
  <dl class="grid grid-cols-[10rem_1fr] gap-y-2">
    {#each LIST as [key, what] (key)}<dt><kbd>{key}</kbd></dt>
      <dd>{what}</dd>{/each}
  </dl>
</Dialog>
