import { fireEvent, screen } from '@testing-library/svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { answering, show } from '../../test/answers';
import HandSaid from './HandSaid.svelte';
import Hands from './Hands.svelte';

const task = (drill: string, more = {}) => ({
  ...{ drill, ask: 'Do it: ' + drill, said: [], label: [], seals: [], ports: [] },
  ...more,
});
const TASKS = [
  task('LABEL', { label: [{ name: 'LAN MAC', text: '02b8.d50e.368b' }] }),
  task('SEAL', { seals: ['48130671', '48130617'] }),
  task('FREE_PORT', { ports: ['LIT', 'DARK', 'KEPT', 'FREE'] }),
];
const ANSWERS = 'POST /api/practice/hands/7/answers';

function open(judged: { status?: number; body?: unknown }) {
  const sent = answering({
    'GET /api/practice/hands/7': { body: { round: 7, tasks: TASKS } },
    [ANSWERS]: judged,
  });
  const leave = vi.fn();
  show(Hands, { round: 7, leave, again: vi.fn() });
  return { leave, said: () => sent.filter((s) => s.call === ANSWERS).map((s) => s.body) };
}

describe('hands', () => {
  afterEach(() => {
    vi.unstubAllGlobals();
    vi.useRealTimers();
  });

  it('goes through the tasks with the keyboard, judges each once, and ends with what slipped', async () => {
    const { leave, said } = open({ body: { right: false, says: 'Two figures are swapped.' } });
    await screen.findByText('02b8.d50e.368b');
    const field = screen.getByLabelText('The MAC');
    expect(field).toHaveFocus();
    expect(screen.getByText('That is it')).toBeDisabled();
    await fireEvent.input(field, { target: { value: '02b8d50e368b' } });
    await fireEvent.submit(field.closest('form') as HTMLFormElement);
    expect(await screen.findByText(/Two figures are swapped/)).toBeVisible();
    expect(screen.getByText('Next')).toHaveFocus();
    await fireEvent.click(screen.getByText('Next'));

    expect(screen.getByText('48130617')).toBeVisible();
    await fireEvent.keyDown(document.body, { key: '1' });
    await screen.findByText(/Two figures are swapped/);
    await fireEvent.keyDown(document.body, { key: '2' });
    await fireEvent.click(screen.getByText('Next'));

    await fireEvent.click(screen.getByRole('button', { name: 'Port 2: cable, light off' }));
    await fireEvent.click(await screen.findByText('How it went'));
    expect(screen.getByText('0 of 3 right')).toBeVisible();
    expect(screen.getAllByText(/Two figures are swapped/)).toHaveLength(3);
    expect(said()).toEqual([
      { task: 0, answer: '02b8d50e368b' },
      { task: 1, answer: 'SAME' },
      { task: 2, answer: '2' },
    ]);
    await fireEvent.click(screen.getByText('Back to practice'));
    expect(leave).toHaveBeenCalled();
  });

  it('keeps what was typed when it could not be judged', async () => {
    open({ status: 500, body: { detail: 'Something went wrong here.' } });
    const field = await screen.findByLabelText('The MAC');
    await fireEvent.input(field, { target: { value: '02' } });
    await fireEvent.submit(field.closest('form') as HTMLFormElement);
    expect(await screen.findByText('Something went wrong here.')).toBeVisible();
    expect(screen.getByLabelText('The MAC')).toHaveValue('02');
  });

  it('says one group after the other, and all of it once more', async () => {
    vi.useFakeTimers();
    show(HandSaid, { groups: ['one zero', 'four four', 'one six', 'five, no, six'] });
    expect(screen.getByText('“one zero …”')).toBeVisible();
    await vi.advanceTimersByTimeAsync(1_700);
    expect(screen.getByText('“point four four …”')).toBeVisible();
    expect(screen.queryByText(/one zero/)).toBeNull();
    await vi.advanceTimersByTimeAsync(10_000);
    expect(screen.getByText('“Got it?”')).toBeVisible();
    await fireEvent.click(screen.getByText('Say it again'));
    expect(screen.getByText('“one zero …”')).toBeVisible();
  });
});
