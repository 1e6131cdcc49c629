import { fireEvent, screen, within } from '@testing-library/svelte';
import { afterEach, expect, it, vi } from 'vitest';
import { answering, show } from '../../test/answers';
import Nights from './Nights.svelte';

vi.mock('../../router', () => ({
  at: (site: number, station: string, to: string | number = '') => `/${site}/${station}/${to}`,
}));

const NIGHTS = 'GET /api/sites/1/nights';
const MAIL = {
  'GET /api/morning-mail': {
    body: { on: false, host: '', port: 25, secured: false, sender: '', recipients: '', trouble: '' },
  },
};
const night = (id: number, more = {}) => ({
  id,
  morning: '2026-12-01',
  by: 'Knot Tag at night',
  startedAt: '2026-12-01T00:00:00Z',
  endedAt: '2026-12-01T00:04:00Z',
  words: 'One thing is new, 1 stands as before. 2 of 9 looks were not made.',
  tells: true,
  read: false,
  ...more,
});
const all = (more = {}, next = {}) => ({
  watched: true,
  by: 'Imke',
  next: {
    morning: '2026-12-02',
    from: '01:00:00',
    until: '05:00:00',
    free: [],
    clear: [{ from: '2026-12-02T01:00:00Z', until: '2026-12-02T02:00:00Z', what: 'Backup' }],
    unknown: ['Till 1'],
    looks: 9,
    ends: '2026-12-02T00:04:00Z',
    tooLong: [],
    hints: ['Drop a list.'],
    ...next,
  },
  missed: [],
  setBack: false,
  running: [],
  nights: [night(7)],
  ...more,
});
const line = (news: string, look: string, title: string, endpointId = 0) => ({
  news,
  look,
  endpointId,
  title,
  detail: `${title}, in full.`,
  since: '2026-11-20T00:00:00Z',
});
const REPORT = {
  'GET /api/nights/7': {
    body: {
      night: night(7),
      looked: 7,
      more: 3,
      lines: [
        line('NEW', 'checks', 'Till 1 fails a check', 4),
        line('STILL', 'audit', 'A stranger'),
        line('WELL', 'service', 'The relay'),
      ],
      left: [{ why: 'The night was too short.', what: ['A', 'B'] }],
    },
  },
};

afterEach(() => vi.unstubAllGlobals());

it('tells what is new before what is old, each with where to settle it, and what nobody looked at', async () => {
  const asked = answering({ [NIGHTS]: { body: all() }, ...REPORT, 'PUT /api/nights/7/read': { body: null } });
  show(Nights, { siteId: 1, mayWork: true, lead: false });
  const fresh = await screen.findByRole('list', { name: 'New' });
  expect(within(fresh).getByRole('link')).toHaveAttribute('href', '/1/confirm/4');
  expect(within(screen.getByRole('list', { name: 'As before' })).getByRole('link')).toHaveAttribute(
    'href',
    '/1/audit/',
  );
  expect(screen.getByRole('list', { name: 'Well again' })).toHaveTextContent('No longer; it was so since');
  expect(screen.getByRole('list', { name: 'Not looked at' })).toHaveTextContent(
    'The night was too short. A, B',
  );
  expect(screen.getByText('And 3 more.')).toBeVisible();
  const hours = screen.getByRole('region', { name: 'Hours' });
  expect(hours).toHaveTextContent('9 looks, done at about');
  expect(hours).toHaveTextContent('Backup');
  expect(hours).toHaveTextContent('Till 1 restarts every night at an hour that is not on record');
  expect(screen.queryByRole('region', { name: 'By mail' })).toBeNull();
  await fireEvent.click(screen.getByRole('button', { name: 'I have read it' }));
  expect(asked.some((a) => a.call === 'PUT /api/nights/7/read')).toBe(true);
});

it('begins with hours that can be changed, and keeps what was typed when they are refused', async () => {
  const asked = answering({
    [NIGHTS]: { body: all({ watched: false, nights: [] }, { tooLong: ['Sweep of Shop'] }) },
    ...MAIL,
    'PUT /api/sites/1/watch': {
      status: 422,
      body: {
        code: 'no-night',
        detail: 'x',
        errors: [{ pointer: '/until', code: 'no-night', message: 'Too short.' }],
      },
    },
  });
  show(Nights, { siteId: 1, mayWork: true, lead: true });
  expect(await screen.findByText('No report yet.')).toBeVisible();
  expect(screen.getByText(/free hours are too short for Sweep of Shop/)).toBeVisible();
  const until = screen.getByLabelText('Until');
  await fireEvent.input(until, { target: { value: '01:10' } });
  await fireEvent.click(screen.getByRole('button', { name: 'Look every night' }));
  expect(await screen.findByText('Too short.')).toBeVisible();
  expect(until).toHaveValue('01:10');
  expect(asked.find((a) => a.call === 'PUT /api/sites/1/watch')?.body).toEqual({
    from: '01:00',
    until: '01:10',
  });
  await fireEvent.click(await screen.findByRole('button', { name: 'Send it by mail' }));
  expect(screen.getByLabelText('Port')).toHaveValue('25');
});

it('says how far it is, that nights were missed, and that the clock is wrong', async () => {
  answering({
    [NIGHTS]: {
      body: all({
        running: [{ made: 2, of: 9, now: 'Sweep of Office' }],
        nights: [night(8, { endedAt: null })],
        missed: ['2026-11-27', '2026-11-28', '2026-11-29', '2026-11-30'],
        setBack: true,
      }),
    },
  });
  show(Nights, { siteId: 1, mayWork: true, lead: false });
  expect(await screen.findByRole('progressbar')).toHaveAccessibleName('Look 3 of 9: Sweep of Office');
  expect(screen.getByText(/Nobody looked in the nights to .* and in 1 before/)).toBeVisible();
  expect(screen.getByText(/clock stands before looks/)).toBeVisible();
  expect(screen.queryByRole('button', { name: 'Make these looks now' })).toBeNull();
});
