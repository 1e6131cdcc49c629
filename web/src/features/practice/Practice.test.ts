import { fireEvent, screen, within } from '@testing-library/svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { answering, show } from '../../test/answers';
import Practice from './Practice.svelte';

const part = (title: string, more = {}) => ({ title, played: 2, score: 0.456, lost: 3.25, ...more });
const played = {
  title: 'The tidy desk',
  solved: false,
  score: 0,
  minutes: 4,
  par: 1.2,
  at: '2026-12-01T08:00:00Z',
};
const view = (more = {}) => ({
  levels: [
    { level: 'FIRST', words: 'one cause' },
    { level: 'SECOND', words: 'a hidden one' },
  ],
  cases: [{ id: 'tidy-desk', title: 'The tidy desk', device: 'copier', level: 'FIRST', best: 0 }],
  results: [played],
  next: { id: 'tidy-desk', title: 'The tidy desk', why: 'Minutes go at copier cases.' },
  kinds: [part('copier')],
  places: [part('Lead and switch', { lost: 0 })],
  ready: [],
  shown: false,
  ...more,
});

function open(more = {}, role = 'TECHNICIAN', shown: { status?: number; body?: unknown } = { status: 204 }) {
  const sent = answering({
    'GET /api/practice': { body: view(more) },
    'GET /api/session': { body: { name: 'Joris Teel', role } },
    'GET /api/practice-readiness': { body: [{ name: 'Mo Teel', levels: ['FIRST', 'SECOND'] }] },
    'PUT /api/me/practice-shown': shown,
  });
  show(Practice, {});
  return sent;
}

describe('the record of practice', () => {
  afterEach(() => vi.unstubAllGlobals());

  it('says where minutes go, which case is next and why', async () => {
    open();
    expect(await screen.findByText('Next case: The tidy desk')).toBeVisible();
    expect(screen.getByText(/Minutes go at copier cases/)).toBeVisible();
    const line = within(screen.getByText('Copier').closest('tr') as HTMLElement);
    expect(line.getByText('46 %')).toBeVisible();
    expect(line.getByText('3.3 min')).toBeVisible();
    expect(screen.getByText(/you are not ready for any level yet/)).toBeVisible();
    expect(screen.queryByText('Who lets you see it')).toBeNull();
  });

  it('shows a lead only what others agreed to, by name', async () => {
    open({ results: [], ready: ['FIRST'] }, 'LEAD');
    expect(await screen.findByText(/ready for one cause; for a hidden one/)).toBeVisible();
    expect(screen.getByText(/you are ready for one cause/)).toBeVisible();
    expect(screen.queryByText('Where your minutes go')).toBeNull();
  });

  it.each([
    ['is sent', { status: 204 }, null],
    [
      'is put back when it was not taken',
      { status: 503, body: { code: 'x', detail: 'Not now.' } },
      'Not now.',
    ],
  ])('what leads may see %s', async (_, answer, said) => {
    const sent = open({}, 'TECHNICIAN', answer);
    const box = await screen.findByLabelText(/^Leads may see/);
    await fireEvent.click(box);
    await vi.waitFor(() =>
      expect(sent).toContainEqual(
        expect.objectContaining({ call: 'PUT /api/me/practice-shown', body: { shown: true } }),
      ),
    );
    if (said) expect(await screen.findByText(said)).toBeVisible();
    if (said) expect(box).not.toBeChecked();
  });
});
