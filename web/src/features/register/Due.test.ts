import { fireEvent, screen, waitFor, within } from '@testing-library/svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { answering, show } from '../../test/answers';
import CalendarFeed from './CalendarFeed.svelte';
import CleanUp from './CleanUp.svelte';
import Due from './Due.svelte';
import GuestStay from './GuestStay.svelte';

vi.mock('../../router', () => ({
  at: (site: number, station: string, to = '') => `/${site}/${station}/${to}`,
  entryAt: (site: number, registry: number, unit: number) => `/${site}/${registry}/${unit}`,
}));

const item = (key: string, title: string, due: boolean, detail = '') => ({
  key,
  title,
  due,
  detail,
  what: 'RENEW',
  at: '2026-12-01T08:00:00Z',
  registryId: 7,
  registrationId: 9,
  endpointId: 3,
});
const order = (name: string, by: string | null, late: boolean, more = {}) => ({
  id: 1,
  name,
  who: 'the desk',
  days: 10,
  after: '',
  by,
  late,
  done: false,
  ...more,
});
const DUE = 'GET /api/sites/1/due';
const due = (more = {}) => ({
  items: [item('a', 'Restart Copier', true, 'It joins only afterwards.'), item('b', 'Renew Tablet', false)],
  orders: [order('Key file', '2026-11-20', true), order('Key stick', '2026-12-05', false, { id: null })],
  chain: ['Key file', 'Key stick'],
  earliest: '2026-12-08',
  visitOn: '2026-12-01',
  visitSlack: 1,
  ...more,
});
const SITE = { 'GET /api/sites/1': { body: { zone: 'Europe/Berlin' } } };

describe('what is due', () => {
  afterEach(() => vi.unstubAllGlobals());

  it('parts today from later, and says that the visit cannot be kept and why', async () => {
    answering({ ...SITE, [DUE]: { body: due() } });
    show(Due, { siteId: 1, mayWork: true });
    const today = await screen.findByRole('list', { name: 'To do today' });
    expect(within(today).getByRole('link', { name: 'Restart Copier' })).toHaveAttribute('href', '/1/7/3');
    expect(
      within(screen.getByRole('list', { name: 'To do later' })).getByText('Renew Tablet'),
    ).toBeInTheDocument();
    expect(screen.getByText(/Too late for that day/)).toHaveTextContent(
      'Too late for that day: the earliest visit is on 8 Dec 2026, because Key file, then Key stick take longest.',
    );
    expect(screen.getByText('order by 20 Nov 2026')).toBeInTheDocument();
    // What comes from a registry is ticked by registering, not here.
    expect(screen.getAllByRole('checkbox')).toHaveLength(1);
  });

  it('says so when nothing is due', async () => {
    answering({ ...SITE, [DUE]: { body: due({ items: [], orders: [], visitOn: null }) } });
    show(Due, { siteId: 1, mayWork: false });
    expect(await screen.findByText('Nothing is due today.')).toBeInTheDocument();
    expect(screen.queryByText('Add what must be there')).toBeNull();
    expect(screen.getByLabelText('The visit is on')).toBeDisabled();
  });

  it('keeps what was typed when an order cannot be', async () => {
    const sent = answering({
      ...SITE,
      [DUE]: { body: due() },
      'POST /api/sites/1/prerequisites': {
        status: 422,
        body: {
          code: 'waits-wrongly',
          detail: 'Lead waits for “x”, which is not in the list.',
          errors: [{ pointer: '/after', message: 'Lead waits for “x”, which is not in the list.' }],
        },
      },
    });
    show(Due, { siteId: 1, mayWork: true });
    await fireEvent.click(await screen.findByText('Add what must be there'));
    await fireEvent.input(screen.getByLabelText('What'), { target: { value: 'Lead' } });
    await fireEvent.input(screen.getByLabelText('Can be ordered only after'), { target: { value: 'x' } });
    await fireEvent.click(screen.getByRole('button', { name: 'Add it' }));
    expect(await screen.findByText('Lead waits for “x”, which is not in the list.')).toBeInTheDocument();
    expect(screen.getByLabelText('What')).toHaveValue('Lead');
    expect(sent.find((s) => s.call.endsWith('prerequisites'))?.body).toEqual({
      name: 'Lead',
      who: '',
      days: 0,
      after: 'x',
    });
  });
});

describe('beside it', () => {
  afterEach(() => vi.unstubAllGlobals());

  it('counts the passes of a guest', async () => {
    const passes = {
      registrations: 3,
      dues: [
        { at: '2026-12-01T16:00:00Z', inHours: true },
        { at: '2026-12-02T20:00:00Z', inHours: false },
      ],
      advice: 'Ask for an account that lasts longer.',
    };
    answering({ 'POST /api/sites/1/guest-passes': { body: passes } });
    show(GuestStay, { siteId: 1 });
    await fireEvent.submit(
      screen.getByRole('button', { name: 'Count the passes' }).closest('form') as HTMLElement,
    );
    expect(await screen.findByText(/3 passes\./)).toHaveTextContent(
      '3 passes. Ask for an account that lasts longer.',
    );
    expect(screen.getAllByText('nobody is at the desk')).toHaveLength(1);
  });

  it('shows the address of a feed once, and ends it', async () => {
    answering({
      'POST /api/sites/1/calendar-feeds': { status: 201, body: { path: '/feeds/abc.ics' } },
      'DELETE /api/sites/1/calendar-feeds': { status: 204 },
    });
    show(CalendarFeed, { siteId: 1 });
    await fireEvent.click(screen.getByRole('button', { name: 'Make a feed' }));
    expect(await screen.findByText(location.origin + '/feeds/abc.ics')).toBeInTheDocument();
    await waitFor(() => expect(screen.getByRole('button', { name: 'End my feeds' })).toBeEnabled());
    await fireEvent.click(screen.getByRole('button', { name: 'End my feeds' }));
    expect(await screen.findByText(/Your feeds have ended/)).toBeInTheDocument();
    expect(screen.queryByText(/abc\.ics/)).toBeNull();
  });

  it('takes an entry off from the version that was listed, and notes who has left', async () => {
    const list = {
      items: [
        {
          reason: 'OWNER_LEFT',
          registration: 9,
          version: 4,
          endpointId: 3,
          message: '“Copier” in Portal belongs to Ada, who has left.',
          wayOut: 'Give it to somebody.',
        },
      ],
      owners: ['Ada', 'Ben'],
      left: ['ada'],
    };
    const sent = answering({
      'GET /api/sites/1/clean-up': { body: list },
      'POST /api/registrations/9/acts': { body: {} },
      'PUT /api/sites/1/owners': { body: list },
    });
    show(CleanUp, { siteId: 1, mayWork: true });
    await fireEvent.click(await screen.findByRole('button', { name: /Taken out: “Copier”/ }));
    await waitFor(() => expect(sent.find((s) => s.call.endsWith('/acts'))).toMatchObject({ ifMatch: '"4"' }));
    await fireEvent.click(screen.getByRole('button', { name: 'Is back' }));
    await waitFor(() =>
      expect(sent.find((s) => s.call.startsWith('PUT'))?.body).toEqual({ name: 'Ada', left: false }),
    );
  });
});
