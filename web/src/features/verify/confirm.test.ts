import { fireEvent, screen } from '@testing-library/svelte';
import { describe, expect, it, vi } from 'vitest';
import { answering, show } from '../../test/answers';
import { outbox } from '../../api/outbox.svelte';
import { siteClock } from '../../ui/siteClock.svelte';
import LookNow from './LookNow.svelte';
import Pasted from './Pasted.svelte';
import OfficeWord from './OfficeWord.svelte';
import SweepPage from './SweepPage.svelte';
import Together from './Together.svelte';

// The whole page hangs on the router; here only its paths are needed.
vi.mock('../../router', () => ({
  at: (site: number, station: string, id: number) => `/sites/${site}/${station}/${id}`,
}));

const check = (more = {}) => ({
  check: 'LINK',
  title: 'Its network light is lit',
  maker: 'EYES',
  status: 'PENDING',
  note: 'Nobody has looked yet.',
  remedy: '',
  loosened: '',
  evidenceWords: '',
  vantage: '',
  at: null,
  by: '',
  millis: 0,
  ask: 'Is the small light at its network plug lit?',
  outcomes: [
    { outcome: 'LIT', words: 'Lit or blinking' },
    { outcome: 'DARK', words: 'Dark' },
  ],
  signals: ['Network light green, steady: linked and idle'],
  restsOn: '0a1b',
  ...more,
});
const endpoint = { siteId: 1, id: 7, name: 'Till 1' };
const line = (more = {}) => ({
  checks: [check()],
  at: '2026-11-25T10:00:00Z',
  by: 'Joris',
  failed: false,
  machineFailed: false,
  missing: '',
  grade: 'FIRM',
  gradeWords: 'Firm',
  handsOver: true,
  apart: '',
  signedOff: null,
  ...more,
});

describe('a check that only eyes can make', () => {
  it('is asked with the lights of the kind, answered by a figure, and says how one knows', async () => {
    const sent = answering({ 'POST /api/endpoints/7/observations': { body: line() } });
    const done = vi.fn();
    show(LookNow, { endpoint, check: check(), first: true, done });
    expect(screen.getByText('Network light green, steady: linked and idle')).toBeVisible();
    await fireEvent.click(screen.getByLabelText('Somebody tells me'));
    await fireEvent.keyDown(document.body, { key: '2' });
    await vi.waitFor(() => expect(done).toHaveBeenCalled());
    expect(sent[0]?.body).toEqual({ check: 'LINK', outcome: 'DARK', evidence: 'SPOKEN' });
  });

  it('is kept on this device when nobody answers, with what it rests on', async () => {
    vi.stubGlobal('fetch', () => Promise.reject(new TypeError('no network')));
    const note = vi.spyOn(outbox, 'note').mockResolvedValue();
    const done = vi.fn();
    show(LookNow, { endpoint, check: check(), first: true, done });
    await fireEvent.keyDown(document.body, { key: '1' });
    await vi.waitFor(() => expect(done).toHaveBeenCalledWith());
    expect(note).toHaveBeenCalledWith(endpoint, {
      what: 'look',
      title: check().ask,
      says: 'Lit or blinking',
      body: { check: 'LINK', outcome: 'LIT', evidence: 'SEEN', restsOn: '0a1b' },
    });
  });

  it('leaves the figures to the causes while something fails, and shows what is refused', async () => {
    const sent = answering({
      'POST /api/endpoints/7/observations': {
        status: 422,
        body: { code: 'no-such-check', detail: 'This endpoint has no such check.', errors: [] },
      },
    });
    show(LookNow, { endpoint, check: check(), first: false, done: vi.fn() });
    await fireEvent.keyDown(document.body, { key: '1' });
    expect(sent).toHaveLength(0);
    await fireEvent.click(screen.getByRole('button', { name: 'Lit or blinking' }));
    expect(await screen.findByText('This endpoint has no such check.')).toBeVisible();
  });
});

describe('the office', () => {
  it.each([
    ['OFFICE', 'I reach it', { reached: true }],
    ['OFFICE', 'I do not reach it', { reached: false }],
    ['TECHNICIAN', null, null],
  ])('%s may say: %s', async (role, says, body) => {
    const sent = answering({
      'GET /api/session': { body: { name: 'Pia', role } },
      'POST /api/endpoints/7/office-word': { body: line() },
    });
    const done = vi.fn();
    show(OfficeWord, { endpointId: 7, line: line({ apart: 'Here and at the office it holds.' }), done });
    expect(await screen.findByText('Here and at the office it holds.')).toBeVisible();
    if (!says) {
      expect(screen.queryByRole('button')).toBeNull();
      return;
    }
    await fireEvent.click(await screen.findByRole('button', { name: says }));
    await vi.waitFor(() => expect(done).toHaveBeenCalled());
    expect(sent.find((s) => s.call.endsWith('office-word'))?.body).toEqual(body);
  });
});

describe('who is there', () => {
  const site = {
    id: 3,
    segments: [{ id: 9, name: 'House', prefix: '10.44.24.0/24' }],
  };
  const swept = (more = {}) => ({
    sweep: {
      state: 'DONE',
      startedAt: '2026-11-25T10:00:00Z',
      endedAt: null,
      by: 'Joris',
      asked: 254,
      total: 254,
      answered: 2,
      vantage: 'this machine, 10.44.24.250',
      lines: [
        {
          address: '10.44.24.77',
          verdict: 'STRANGER',
          name: '',
          endpointId: 0,
          mac: '00:00:5E:00:53:99',
          words: 'A stranger: nobody is planned here.',
        },
        {
          address: '10.44.24.20',
          verdict: 'AS_PLANNED',
          name: 'Reader',
          endpointId: 4,
          mac: null,
          words: 'There.',
        },
      ],
      ...more,
    },
  });

  it.each([
    [swept(), '254 asked 25 Nov, 11:00 by Joris, from this machine, 10.44.24.250.'],
    [
      swept({ state: 'CUT_OFF', asked: 64 }),
      'The server was restarted in the middle: 64 of 254 were asked. Ask again.',
    ],
    [swept({ state: 'CANCELLED', asked: 64 }), 'Stopped after 64 of 254. Who was not asked is not listed.'],
    [swept({ state: 'RUNNING', asked: 64 }), '64 of 254 asked, 2 answer'],
    [{ sweep: null }, 'Every address of the segment is asked once. Who answers is compared with the plan'],
  ])('says how it stands', async (answer, words) => {
    siteClock.zone = 'Europe/Berlin';
    answering({ 'GET /api/sites/3': { body: site }, 'GET /api/segments/9/sweep': { body: answer } });
    show(SweepPage, { siteId: 3, mayWork: true });
    expect((await screen.findAllByText(words, { exact: false }))[0]).toBeVisible();
    const running = answer.sweep?.state === 'RUNNING';
    expect(screen.queryByRole('button', { name: 'Stop' }) !== null).toBe(running);
    if (answer.sweep?.state === 'DONE') {
      expect(screen.getByText('Strangers')).toBeVisible();
      expect(screen.getByRole('link', { name: 'Reader' })).toHaveAttribute('href', '/sites/3/confirm/4');
    }
  });
});

describe('a sweep of which nothing is known', () => {
  it('offers none before it is told whether somebody asked', async () => {
    answering({
      'GET /api/sites/3': { body: { segments: [{ id: 9, name: 'Shop', prefix: '10.44.24.0/24' }] } },
      'GET /api/segments/9/sweep': { status: 503, body: { code: 'x', detail: 'The records are away.' } },
    });
    show(SweepPage, { siteId: 3, mayWork: true });
    expect(await screen.findByText('The records are away.')).toBeVisible();
    expect(screen.queryByRole('button', { name: /^Ask/ })).toBeNull();
    expect(screen.queryByText(/is asked once/)).toBeNull();
  });
});

describe('several together', () => {
  const one = (id: number, kind: string, serial = 'S' + id) => ({
    id,
    kind,
    serial,
    name: 'Unit ' + id,
    address: '10.44.16.' + id,
    mac: '00:00:5E:00:53:0' + id,
    status: 'PENDING',
    station: 'CONFIRM',
    place: '',
  });

  it('checks those that were chosen and says what is the matter with each', async () => {
    const bad = check({ check: 'ANSWERS', title: 'The address answers', status: 'FAILED', note: 'Silent.' });
    const sent = answering({
      'GET /api/sites/1/endpoints': {
        body: [one(1, 'till'), one(2, 'till'), one(3, 'clock'), one(4, 'till', '')],
      },
      'POST /api/endpoints/1/check-runs': { status: 201, body: line() },
      'POST /api/endpoints/2/check-runs': { status: 201, body: line({ checks: [bad], missing: 'x' }) },
    });
    show(Together, { siteId: 1, mayWork: true });
    expect(await screen.findByText('Unit 3')).toBeVisible();
    expect(screen.queryByText('Unit 4')).toBeNull();
    await fireEvent.click(screen.getByRole('button', { name: 'All: till' }));
    await fireEvent.click(screen.getByRole('button', { name: /Check 2 together/ }));
    expect(await screen.findByText('1 of 2 without a fault.')).toBeVisible();
    expect(screen.getByText('The address answers: Silent.')).toBeVisible();
    expect(screen.getByText('All checks hold.')).toBeVisible();
    expect(sent.filter((s) => s.call.startsWith('POST'))).toHaveLength(2);
  });
});

describe('what was pasted', () => {
  it.each([[true], [false]])('is read and compared; weighed: %s', async (weighed) => {
    const sent = answering({
      'POST /api/endpoints/7/pasted': {
        body: {
          form: 'a neighbour table',
          findings: [{ words: '10.44.16.54 is another MAC.', fits: false }],
          weighed,
        },
      },
    });
    const told = vi.fn();
    show(Pasted, { endpointId: 7, weighed: told });
    await fireEvent.click(screen.getByText('Paste what a tool or the device says'));
    await fireEvent.input(screen.getByRole('textbox'), { target: { value: '10.44.16.54 at ...' } });
    await fireEvent.click(screen.getByRole('button', { name: 'Read it' }));
    expect(await screen.findByText('10.44.16.54 is another MAC.')).toBeVisible();
    expect(sent[0]?.body).toEqual({ text: '10.44.16.54 at ...' });
    expect(told).toHaveBeenCalledTimes(weighed ? 1 : 0);
  });
});
