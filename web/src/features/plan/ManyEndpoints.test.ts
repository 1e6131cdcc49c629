import { fireEvent, screen, waitFor } from '@testing-library/svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { answering, show } from '../../test/answers';
import ManyEndpoints from './ManyEndpoints.svelte';

const go = vi.hoisted(() => vi.fn());
vi.mock('../../router', () => ({ at: (_: number, station: string, to = '') => `/${station}/${to}`, go }));

const segments = [
  {
    id: 1,
    name: 'Shop floor',
    prefix: '10.44.16.0/24',
    lastHost: 255,
    gatewayHost: 1,
    pools: [],
    series: [],
  },
];
const BATCH = 'POST /api/sites/1/endpoint-batches';
const series = (id: number, name: string) => ({ id, name, segmentId: 1, followsId: null });
const base = {
  'GET /api/kinds': {
    body: [{ id: 'till-pin-pad', name: 'Till PIN pad', series: 'PIN pad', noun: 'PIN pad' }],
  },
  'GET /api/sites/1/sheet': { body: { series: [series(5, 'PIN pad'), series(6, 'Till')] } },
  'GET /api/sites/1/segments/1/tape': { body: { marks: [], free: [], elsewhere: [], nextPrefix: null } },
};
const row = (number: number) => ({
  number,
  name: 'PIN pad ' + number,
  address: '10.44.16.' + (70 + number),
  host: 70 + number,
  servicePort: 7600 + number,
  partner: '',
  reason: 'By its number.',
});
const batch = (rows: unknown[], clash = '', leastChanges: string[] = []) => ({
  body: { preview: true, rows, clash, leastChanges },
});

describe('many endpoints at once', () => {
  beforeEach(() => go.mockReset());
  afterEach(() => vi.unstubAllGlobals());

  it('counts in the series of the kind, shows each on the tape, and saves them', async () => {
    const sent = answering({ ...base, [BATCH]: batch([row(1), row(2)]) });
    show(ManyEndpoints, { siteId: 1, segments });
    expect(await screen.findByRole('heading', { name: 'This makes 2' })).toBeInTheDocument();
    expect(screen.getByLabelText('Counted in')).toHaveValue('5');
    expect(sent.find((s) => s.call === BATCH)?.body).toMatchObject({ seriesId: 5, numbers: '1 to 8' });
    expect(document.querySelectorAll('[data-tape] a')).toHaveLength(3);
    await fireEvent.click(screen.getByRole('button', { name: 'Plan 2 here' }));
    await waitFor(() => expect(go).toHaveBeenCalledWith('/plan/'));
  });

  it('asks how many when nothing is counted', async () => {
    const sent = answering({ ...base, [BATCH]: batch([]) });
    show(ManyEndpoints, { siteId: 1, segments });
    await screen.findByText('Nothing to make yet');
    await fireEvent.change(screen.getByLabelText('Counted in'), { target: { value: '0' } });
    await fireEvent.input(await screen.findByLabelText('How many'), { target: { value: '3' } });
    await waitFor(() => expect(sent.at(-1)?.body).toMatchObject({ seriesId: 0, count: 3 }));
  });

  it('says who stands in whose way, and the least that would have to give', async () => {
    answering({
      ...base,
      [BATCH]: batch([], '3 ask for 2 addresses in 10.44.16.0/29: A, B, C.', ['End the pool at 10.44.16.5.']),
    });
    show(ManyEndpoints, { siteId: 1, segments });
    expect(await screen.findByRole('heading', { name: 'They do not all fit' })).toBeInTheDocument();
    expect(screen.getByText('End the pool at 10.44.16.5.')).toBeInTheDocument();
    expect(screen.getByRole('button', { name: 'Plan them here' })).toBeDisabled();
  });

  it('names what is wrong with the numbers at their field', async () => {
    const message = '“one” is no number or run. Type 1 to 8, or 1, 3, 5.';
    answering({
      ...base,
      [BATCH]: {
        status: 422,
        body: { code: 'x', detail: message, errors: [{ pointer: '/numbers', message }] },
      },
    });
    show(ManyEndpoints, { siteId: 1, segments });
    expect(await screen.findByText(message)).toBeInTheDocument();
    expect(screen.getByLabelText('Numbers')).toHaveAttribute('aria-invalid', 'true');
  });
});
