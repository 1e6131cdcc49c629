import { screen, within } from '@testing-library/svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { answering, show } from '../../test/answers';
import Today from './Today.svelte';

vi.mock('../../router', () => ({
  WAITING_AT: ['plan', 'register', 'onboard', 'confirm'],
  STATION_NAMES: { plan: 'Plan', register: 'Register', onboard: 'Onboard', confirm: 'Confirm' },
  at: (site: number, station: string, to: string | number = '') => `/${site}/${station}/${to}`,
  visitAt: (site: number, visit: number) => `/${site}/onboard/visits?visit=${visit}`,
}));

const NOW = Date.now();
const min = (minutes: number) => new Date(NOW + minutes * 60_000 - 30_000).toISOString();
const notice = (what: string, title: string, at: number, more = {}) => ({
  what,
  siteId: 1,
  site: 'Garden centre',
  station: 'ONBOARD',
  aboutId: 4,
  at: min(at),
  who: '',
  title,
  detail: 'So it is.',
  ...more,
});
const day = (more = {}) => ({
  concerns: [],
  first: null,
  now: [],
  running: [],
  ahead: [],
  sites: [
    {
      siteId: 1,
      site: 'Garden centre',
      zone: 'Europe/Berlin',
      waiting: { ONBOARD: 3 },
      next: 'ONBOARD',
      broken: false,
    },
    { siteId: 2, site: 'Clinic', zone: 'Asia/Tokyo', waiting: {}, next: null, broken: false },
  ],
  at: new Date(NOW).toISOString(),
  ...more,
});
const open = (more: object) => {
  answering({ 'GET /api/today': { body: day(more) } });
  show(Today, {});
};

describe('today', () => {
  afterEach(() => vi.unstubAllGlobals());

  it('says first what the whole machine needs', async () => {
    open({
      concerns: [
        { stops: true, title: 'The disk is full', detail: 'Nothing is taken in until there is room.' },
      ],
    });
    const section = await screen.findByRole('region', { name: 'The disk is full' });
    expect(section).toHaveTextContent('Nothing is taken in until there is room.');
    expect(section.compareDocumentPosition(screen.getByText('Nothing waits for you'))).toBe(
      Node.DOCUMENT_POSITION_FOLLOWING,
    );
  });

  it('has one strong line, and leads to where it is settled', async () => {
    open({
      first: notice('TOO_LONG', 'Look at Till 3', -12),
      now: [
        notice('VISIT_RUNS', 'Go on with Second shop', -40, { aboutId: 7 }),
        notice('DUE', 'Order Key file', -60, { aboutId: null, who: 'acquirer', station: 'REGISTER' }),
        notice('BROKEN', 'Mend Copier', -75, { station: 'CONFIRM', aboutId: 9 }),
      ],
      running: [notice('RUNS', 'Till 4', 25)],
    });
    const first = await screen.findByRole('region', { name: 'What comes first' });
    expect(within(first).getByRole('heading', { name: 'Look at Till 3' })).toBeInTheDocument();
    expect(within(first).getByRole('link', { name: 'Go and look' })).toHaveAttribute('href', '/1/onboard/4');
    const link = (name: string) => screen.getByRole('link', { name }).getAttribute('href');
    expect(link('Go on with Second shop')).toBe('/1/onboard/visits?visit=7');
    expect(link('Order Key file')).toBe('/1/register/due');
    expect(link('Mend Copier')).toBe('/1/confirm/9');
    expect(screen.getByRole('region', { name: 'After that' })).toHaveTextContent('Garden centre, acquirer');
    expect(screen.getByRole('region', { name: 'After that' })).toHaveTextContent('1 h 15 min');
    expect(screen.getByRole('region', { name: 'Runs by itself' })).toHaveTextContent('in 25 min');
  });

  it.each([
    [
      notice('RUNS', 'Till 4', 25),
      'Nothing waits for your hands',
      'Till 4 at Garden centre is the next to look at, in 25 min.',
    ],
    [null, 'Nothing waits for you', 'whatever was proved still holds'],
  ])('says so when nothing needs hands', async (first, heading, words) => {
    open({ first });
    expect(await screen.findByRole('heading', { name: heading })).toBeInTheDocument();
    expect(screen.getByRole('region', { name: 'What comes first' })).toHaveTextContent(words);
  });

  it('tells visits by the clock of their site, and what waits where', async () => {
    open({ ahead: [notice('VISIT_AHEAD', 'Clinic hall', 60, { siteId: 2, at: '2131-11-25T23:30:00Z' })] });
    expect(await screen.findByRole('region', { name: 'Visits ahead' })).toHaveTextContent(
      '26 Nov 2131, 08:30',
    );
    expect(screen.getByRole('link', { name: '3 wait at Onboard of Garden centre' })).toHaveAttribute(
      'href',
      '/1/onboard/',
    );
    expect(screen.getByRole('row', { name: /Clinic/ })).toHaveTextContent('Nothing waits');
  });
});
