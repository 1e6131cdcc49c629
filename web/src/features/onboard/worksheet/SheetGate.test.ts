import { fireEvent, screen, waitFor } from '@testing-library/svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { network } from '../../../api/answers.svelte';
import { answering, show } from '../../../test/answers';
import { disk } from '../../../test/disk';
import SheetGate from './SheetGate.svelte';
import Worksheets from './Worksheets.svelte';

vi.mock('idb-keyval', () => import('../../../test/disk'));
const { query } = vi.hoisted(() => ({ query: new Map<string, string>() }));
vi.mock('sv-router', () => ({ searchParams: query }));
vi.mock('../../../router', () => ({ at: (site: number, ...to: unknown[]) => `/${site}/${to.join('/')}` }));

const field = (key: string, label: string, more = {}) => ({
  key,
  label,
  form: 'FIGURE',
  unit: 'A',
  least: 0,
  most: 9,
  usual: '',
  hint: '',
  needed: true,
  picks: [],
  columns: [],
  ...more,
});
const sheet = {
  key: 'supply',
  title: 'What hangs on the supply',
  about: 'Adds up what they draw.',
  fields: [
    field('supply', 'Supply'),
    field('parts', 'Parts', {
      form: 'ROWS',
      fewest: 1,
      columns: [field('name', 'Part', { form: 'WORDS', unit: '' }), field('hold', 'Held')],
    }),
  ],
};
const judgement = {
  results: [{ code: 'HELD', label: 'Held for long', text: '0.85 A of 0.8 A' }],
  findings: [
    {
      code: 'TOO_SMALL',
      weight: 'STOPS',
      field: 'supply',
      message: 'They hold too much.',
      wayOut: 'Take 2 A.',
    },
  ],
  pictures: [
    {
      title: 'Against the supply',
      unit: 'A',
      to: 1,
      rows: [{ label: 'Held', parts: [{ from: 0, to: 0.85, label: 'Reader', tone: 'BAD' }] }],
      marks: [{ at: 0.8, label: 'four fifths' }],
      ticks: [{ at: 0, label: '0 A' }],
    },
  ],
};
const filled = {
  sheet: 'supply',
  title: sheet.title,
  step: 'Its supply',
  figures: { supply: '1', 'parts/0/name': 'Reader', 'parts/0/hold': '0.85' },
  counted: {},
  judgement,
  holds: false,
  version: 3,
  by: 'Imke',
  at: '2026-03-29T14:05:00Z',
};
const endpoint = { siteId: 1, id: 7, name: 'Door reader' };
const answers = (listAfter: number, more: Parameters<typeof answering>[0] = {}) =>
  answering({
    'GET /api/worksheets': { body: [sheet], after: listAfter },
    'GET /api/endpoints/7/worksheets': { body: [filled] },
    'GET /api/sites/1/worksheets': { body: [] },
    'POST /api/worksheets/supply/judgement': { body: { judgement, holds: false } },
    'PUT /api/sites/1/worksheets/supply': { body: [{ ...filled, version: 1 }] },
    ...more,
  });

describe('a worksheet', () => {
  afterEach(() => {
    vi.unstubAllGlobals();
    sessionStorage.clear();
    query.clear();
  });

  it('is shown whichever of its two answers comes first', async () => {
    answers(60);
    show(SheetGate, { sheet: 'supply', endpoint });
    expect(await screen.findByLabelText('Supply (A)')).toHaveValue('1');
  });

  it('says the sum, what stops it and the way out, and marks the field', async () => {
    answers(0);
    show(SheetGate, { sheet: 'supply', endpoint });
    expect(await screen.findByText('0.85 A of 0.8 A')).toBeInTheDocument();
    expect(screen.getByText('They hold too much.')).toBeInTheDocument();
    expect(screen.getByText('Take 2 A.')).toBeInTheDocument();
    expect(screen.getByLabelText('Supply (A)')).toBeInvalid();
    expect(screen.getByRole('figure', { name: 'Against the supply' })).toHaveTextContent('four fifths');
  });

  it('keeps what was keyed in from the version that was seen, with rows added and taken out', async () => {
    const sent = answers(0);
    show(Worksheets, { siteId: 1, mayWork: true });
    await fireEvent.input(await screen.findByLabelText('Part'), { target: { value: 'Lock' } });
    await fireEvent.input(screen.getByLabelText('Held (A)'), { target: { value: '0.5' } });
    await fireEvent.click(screen.getByRole('button', { name: 'Add another' }));
    expect(screen.getAllByLabelText('Held (A)')[1]).toHaveValue('0.5');
    await fireEvent.click(screen.getByRole('button', { name: 'Take out row 1' }));
    await fireEvent.input(screen.getByLabelText('Part'), { target: { value: 'Reader' } });
    await fireEvent.click(screen.getByRole('button', { name: 'Keep these figures' }));
    await waitFor(() => expect(screen.getByText('Kept.')).toBeInTheDocument());
    const put = sent.find((s) => s.call.startsWith('PUT'));
    expect(put).toEqual({
      call: 'PUT /api/sites/1/worksheets/supply',
      body: { figures: { 'parts/1/name': 'Reader', 'parts/1/hold': '0.5' } },
      ifMatch: '"0"',
    });
  });

  it('works out nothing from other figures when nobody can be reached, and keeps these on the device', async () => {
    query.set('endpoint', '7');
    const more = { 'GET /api/endpoints/7': { body: endpoint } };
    answers(0, more);
    show(Worksheets, { siteId: 1, mayWork: true });
    expect(await screen.findByText('0.85 A of 0.8 A')).toBeInTheDocument();
    const gone = { status: 0 };
    answers(0, {
      ...more,
      'POST /api/worksheets/supply/judgement': gone,
      'PUT /api/endpoints/7/worksheets/supply': gone,
    });
    await fireEvent.input(screen.getByLabelText('Supply (A)'), { target: { value: '2' } });
    expect(await screen.findByText(/cannot be reached just now/)).toBeInTheDocument();
    expect(screen.queryByText('0.85 A of 0.8 A')).not.toBeInTheDocument();
    await fireEvent.click(screen.getByRole('button', { name: 'Keep these figures' }));
    expect(await screen.findByText('Kept on this device, and not sent yet.')).toBeInTheDocument();
    expect(screen.queryByText('Kept.')).not.toBeInTheDocument();
    expect([...disk.values()].map((u) => u.did)).toMatchObject([
      {
        ...{ what: 'sheet', key: 'supply', figures: { supply: '2' }, was: { supply: '1' } },
        names: { supply: 'Supply', 'parts/hold': 'Held' },
      },
    ]);
    // What was asked without network is over.
    await new Promise((over) => setTimeout(over, 400));
    expect(screen.getByText(/cannot be reached just now/)).toBeInTheDocument();
    answers(0, more);
    network.down = false;
    expect(await screen.findByText('0.85 A of 0.8 A')).toBeInTheDocument();
    expect(screen.queryByText(/cannot be reached just now/)).not.toBeInTheDocument();
  });
});
