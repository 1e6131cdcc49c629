import { fireEvent, screen, within } from '@testing-library/svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { answering, show } from '../../test/answers';
import VisitPage from './VisitPage.svelte';

vi.mock('../../router', () => ({
  at: (site: number, station: string, to = '') => `/${site}/${station}/${to}`,
}));

const hour = (h: number, m: number) => new Date(Date.UTC(2031, 10, 25, h, m)).toISOString();
const person = (name: string, more = {}) => ({
  name,
  skills: [],
  from: null,
  until: null,
  gone: false,
  there: 70,
  now: {
    what: 'DO',
    unitId: 4,
    siteId: 1,
    unit: 'Till 3',
    place: 'Plant hall',
    title: 'First start',
    steps: 3,
    carry: ['its box', 'Small screwdriver'],
    at: hour(6, 0),
    since: null,
    because: 'It comes first by the plan.',
    ...more,
  },
});
const visit = (more = {}, plan = {}, state = 'PLANNED') => ({
  head: {
    id: 7,
    name: 'Second shop',
    state,
    siteId: 1,
    site: 'Garden centre',
    begins: hour(6, 0),
    due: hour(8, 0),
  },
  beganAt: null,
  endedAt: null,
  people: [person('Imke R'), person('Joost T', { unitId: 5, unit: 'Till 4' })],
  means: { places: [], tools: [], outlets: 4, ports: null, megabits: 0, walk: 1, travel: 0 },
  units: [],
  tasks: [],
  real: [],
  offer: { minutes: 0, known: 0, steps: 0 },
  behind: false,
  version: 3,
  plan: {
    turns: [],
    from: hour(6, 0),
    finish: hour(7, 52),
    bound: { at: hour(7, 46), best: false, searched: true },
    walking: 4,
    oneAfterAnother: 390,
    odds: { half: hour(7, 58), nine: hour(8, 9), inTime: 61, without: [] },
    helps: [{ what: 'one more person', minutes: 24 }],
    obstacles: [],
    left: [],
    latest: [],
    known: { learned: 0, steps: 30 },
    ...plan,
  },
  ...more,
});

function open(body: object, more = {}) {
  const sent = answering({ 'GET /api/visits/7': { body }, ...more });
  show(VisitPage, { id: 7, siteId: 1, mayWork: true, kept: () => {}, back: () => {} });
  return sent;
}

describe('a visit', () => {
  afterEach(() => vi.unstubAllGlobals());

  it('says when it is done, how good that is, how sure, and what would help', async () => {
    open(visit());
    const words = await screen.findByRole('region', { name: 'The plan in words' });
    expect(words).toHaveTextContent('Done 07:52');
    expect(words).toHaveTextContent('Nobody can be done before 07:46.');
    expect(words).toHaveTextContent('In 61 of 100 days it is done by 08:00.');
    expect(words).toHaveTextContent('one more person saves 24 min');
    expect(words).toHaveTextContent('One after another it would take 6 h 30 min.');
  });

  it('says that it is too late, what does not fit and what cannot be done', async () => {
    open(
      visit(
        {},
        {
          finish: hour(8, 20),
          bound: { at: hour(8, 20), best: true, searched: true },
          left: ['Till 9'],
          odds: { half: hour(8, 20), nine: hour(8, 30), inTime: 0, without: ['Till 9', 'Door 1'] },
          obstacles: [{ unit: 3, text: 'Door 1 needs a fitter.' }],
        },
      ),
    );
    const words = await screen.findByRole('region', { name: 'The plan in words' });
    expect(words).toHaveTextContent('That is too late');
    expect(words).toHaveTextContent('Nobody can be done earlier.');
    expect(words).toHaveTextContent('Without Till 9 and Door 1 it is done on five days of ten by 08:20');
    expect(words).toHaveTextContent('Till 9 does not fit');
    expect(words).toHaveTextContent('Door 1 needs a fitter.');
  });

  it('gives each pair of hands one line, and takes it for them', async () => {
    const running = visit({ beganAt: hour(6, 1) }, {}, 'RUNNING');
    const sent = open(running, { 'POST /api/visits/7/people/1/take': { body: running } });
    const lines = await screen.findByRole('list', { name: 'What to do now' });
    expect(lines).toHaveTextContent('Carry its box, small screwdriver.');
    expect(within(lines).getByRole('link', { name: 'Till 3: First start' })).toHaveAttribute(
      'href',
      '/1/onboard/4',
    );
    await fireEvent.click(within(lines).getByRole('button', { name: 'Joost takes it' }));
    expect(sent.map((s) => s.call)).toContain('POST /api/visits/7/people/1/take');
  });

  it('plans anew by itself, once, when nobody took the next turn in its time', async () => {
    const late = visit({ beganAt: hour(6, 1), behind: true }, {}, 'RUNNING');
    const sent = open(late, { 'POST /api/visits/7/plan': { body: late } });
    await screen.findByRole('list', { name: 'What to do now' });
    await vi.waitFor(() => expect(sent.map((s) => s.call)).toContain('POST /api/visits/7/plan'));
    await new Promise((done) => setTimeout(done, 50));
    expect(sent.filter((s) => s.call === 'POST /api/visits/7/plan')).toHaveLength(1);
  });

  it('has a task in hand that is done by a press, since it has no runbook', async () => {
    const running = visit(
      { people: [person('Imke R', { what: 'GO_ON', unitId: -3, title: 'Close the box' })] },
      {},
      'RUNNING',
    );
    const sent = open(running, { 'POST /api/visits/7/people/0/done': { body: running } });
    await fireEvent.click(await screen.findByRole('button', { name: 'It is done' }));
    expect(sent.map((s) => s.call)).toContain('POST /api/visits/7/people/0/done');
    expect(screen.queryByRole('link', { name: /Close the box/ })).toBeNull();
  });

  it('leaves for another day what would not go, and takes it in again', async () => {
    const unit = { endpointId: 4, siteId: 1, endpoint: 'Till 3', place: '', bench: false, first: false };
    const running = visit(
      {
        people: [person('Imke R', { what: 'GO_ON' })],
        units: [{ ...unit, hands: 9, chain: 9, done: false, aside: true }],
      },
      {},
      'RUNNING',
    );
    const sent = open(running, {
      'POST /api/visits/7/people/0/set-aside': { body: running },
      'POST /api/visits/7/units/4/take-in': { body: running },
    });
    await fireEvent.click(await screen.findByRole('button', { name: 'Leave it for another day' }));
    const aside = screen.getByRole('list', { name: 'Left for another day' });
    expect(aside).toHaveTextContent('Till 3');
    const takeIn = within(aside).getByRole('button', { name: 'Take it in again' });
    await vi.waitFor(() => expect(takeIn).toBeEnabled());
    await fireEvent.click(takeIn);
    expect(sent.map((s) => s.call)).toContain('POST /api/visits/7/people/0/set-aside');
    expect(sent.map((s) => s.call)).toContain('POST /api/visits/7/units/4/take-in');
  });

  it('begins from the version that is on the screen, and keeps what went wrong', async () => {
    const sent = open(visit(), {
      'POST /api/visits/7/begin': {
        status: 412,
        body: { code: 'changed-meanwhile', detail: 'Somebody changed this.' },
      },
    });
    await fireEvent.click(await screen.findByRole('button', { name: 'Begin the visit' }));
    expect(await screen.findByText('Somebody changed this.')).toBeInTheDocument();
    expect(sent.find((s) => s.call === 'POST /api/visits/7/begin')?.ifMatch).toBe('"3"');
  });

  it('says afterwards how long hands took, and what is left', async () => {
    open(
      visit(
        {
          beganAt: hour(6, 0),
          endedAt: hour(8, 3),
          units: [
            {
              endpointId: 4,
              siteId: 1,
              endpoint: 'Till 3',
              place: '',
              bench: false,
              first: false,
              hands: 0,
              chain: 0,
              done: true,
              aside: false,
            },
            {
              endpointId: 5,
              siteId: 1,
              endpoint: 'Till 4',
              place: '',
              bench: false,
              first: false,
              hands: 12,
              chain: 30,
              done: false,
              aside: false,
            },
          ],
          offer: { minutes: 9, known: 1, steps: 1 },
          real: [{ endpointId: 4, kind: 'x', step: 'wire', minutes: 11, planned: 8 }],
        },
        {},
        'OVER',
      ),
    );
    expect(await screen.findByText('Hands took 11 min where 8 min were planned.')).toBeInTheDocument();
    expect(screen.getByRole('region', { name: 'How it went' })).toHaveTextContent(
      'Imke R was there for 1 h 10 min, Joost T for 1 h 10 min: 2 h 20 min in all, for the invoice.',
    );
    const left = screen.getByRole('region', { name: 'What is left' });
    expect(left).toHaveTextContent('Till 4');
    expect(left).not.toHaveTextContent('Till 3');
  });
});
