import { screen, within } from '@testing-library/svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { answering, show } from '../../test/answers';
import Board from './Board.svelte';

vi.mock('../../router', () => ({
  at: (site: number, station: string, to = '') => `/${site}/${station}/${to}`,
}));

const line = (state: string, endpoint: number, more = {}) => ({
  state,
  endpoint,
  name: 'Till ' + endpoint,
  place: '',
  step: 'wire',
  title: 'Wire it',
  status: 'PENDING',
  minutes: 0,
  left: 75,
  because: 'It still has 57 min to run by itself.',
  ...more,
});
const lines = (...all: object[]) => answering({ 'GET /api/sites/1/board': { body: { lines: all } } });

describe('the board of several endpoints', () => {
  afterEach(() => vi.unstubAllGlobals());

  it('says one thing to do now, and what comes and runs beside it', async () => {
    lines(
      line('NOW', 3, { place: 'Plant hall', title: 'First start' }),
      line('NEXT', 1),
      line('RUNS', 2, { minutes: 12, title: 'Restart it' }),
    );
    show(Board, { siteId: 1 });
    expect(await screen.findByRole('heading', { name: 'Till 3: First start' })).toBeInTheDocument();
    expect(screen.getByText('Plant hall. It still has 57 min to run by itself.')).toBeInTheDocument();
    expect(screen.getByRole('link', { name: 'Go there' })).toHaveAttribute('href', '/1/onboard/3');
    expect(
      within(screen.getByRole('list', { name: 'After that' })).getByText('1 h 15 min to go'),
    ).toBeInTheDocument();
    expect(
      within(screen.getByRole('list', { name: 'Runs by itself' })).getByText('look in 12 min'),
    ).toBeInTheDocument();
  });

  it('says when the hands are free, and until when', async () => {
    lines(line('RUNS', 2, { minutes: 40 }), line('RUNS', 5, { minutes: 12 }));
    show(Board, { siteId: 1 });
    expect(await screen.findByRole('heading', { name: 'Look at Till 5 in 12 min' })).toBeInTheDocument();
    expect(screen.queryByRole('link', { name: 'Go there' })).toBeNull();
  });

  it('stays out of the way when nothing is being set up', async () => {
    lines();
    show(Board, { siteId: 1 });
    expect(await screen.findByRole('heading', { name: 'Onboard' })).toBeInTheDocument();
    expect(screen.queryByText('Do this now')).toBeNull();
  });
});
