import { screen, within } from '@testing-library/svelte';
import { afterEach, expect, it, vi } from 'vitest';
import { answering, show } from '../../test/answers';
import Recheck from './Recheck.svelte';

vi.mock('../../router', () => ({
  at: (site: number, station: string, to = '') => `/${site}/${station}/${to}`,
  go: vi.fn(),
  visitAt: (site: number, visit: number) => `/${site}/visits/${visit}`,
}));

const line = (endpointId: number, name: string, overdue: boolean, due: string) => ({
  endpointId,
  name,
  place: overdue ? 'Front counter' : '',
  chance: 48,
  due,
  overdue,
  says: `${name} was looked at long ago.`,
});
const LIST = 'GET /api/sites/1/rechecks';
const listed = (more = {}) => ({
  overdue: 2,
  lines: [
    line(1, 'Till 1', true, '2026-03-27T10:00:00Z'),
    { ...line(2, 'Till 2', true, '2026-04-27T10:00:00Z'), chance: 100 },
    line(4, 'Copier', false, '2027-01-21T10:00:00Z'),
    { ...line(3, 'Camera', false, '2027-05-01T10:00:00Z'), chance: 0 },
  ],
  sites: [
    { siteId: 1, site: 'Barn', overdue: 2 },
    { siteId: 3, site: 'Clinic', overdue: 1 },
  ],
  errands: [{ title: 'Till 1: prove it again', place: 'Front counter', minutes: 4, stage: 1 }],
  ...more,
});
const SESSION = { 'GET /api/session': { body: { name: 'Imke' } } };

afterEach(() => vi.unstubAllGlobals());

it('lists what is due as it comes, the rest after it, and where a visit is worth more', async () => {
  answering({ ...SESSION, [LIST]: { body: listed() } });
  show(Recheck, { siteId: 1, mayWork: true });
  const due = await screen.findByRole('list', { name: 'Due to be checked again' });
  expect(
    within(due)
      .getAllByRole('link')
      .map((a) => a.textContent),
  ).toEqual(['Till 1', 'Till 2']);
  expect(within(due).getByRole('link', { name: 'Till 1' })).toHaveAttribute('href', '/1/confirm/1');
  expect(due).toHaveTextContent('48 % that something has changed since; due since 27 Mar 2026');
  expect(due).toHaveTextContent('Fails since 27 Apr 2026');
  expect(due).toHaveTextContent('48 % that something has changed since; due since 27 Mar 2026');
  const later = screen.getByRole('table', { name: 'Later' });
  expect(
    within(later)
      .getAllByRole('link')
      .map((a) => a.textContent),
  ).toEqual(['Copier', 'Camera']);
  expect(within(later).getByRole('row', { name: /Camera/ })).toHaveTextContent('under 1 %');
  expect(screen.getByRole('status')).toHaveTextContent('2 proofs here are due to be renewed.');
  expect(screen.getByText(/A visit is worth most here; then/)).toHaveTextContent('at Clinic (1 due).');
  expect(screen.getByRole('button', { name: 'Plan the visit' })).toBeEnabled();
});

it.each([
  [[], 'Nobody is signed off here yet, so no proof can age.'],
  [[line(3, 'Camera', false, '2027-05-01T10:00:00Z')], 'No proof here is old enough to look again.'],
])('says so when nothing is due, and offers no visit: %#', async (lines, says) => {
  answering({ ...SESSION, [LIST]: { body: listed({ lines, errands: [], sites: [] }) } });
  show(Recheck, { siteId: 1, mayWork: true });
  expect(await screen.findByText(says)).toBeInTheDocument();
  expect(screen.queryByRole('button', { name: 'Plan the visit' })).toBeNull();
  expect(screen.queryByText(/A visit is worth/)).toBeNull();
});
