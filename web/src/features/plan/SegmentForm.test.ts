import { fireEvent, screen, waitFor } from '@testing-library/svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { answering, show } from '../../test/answers';
import SegmentForm from './SegmentForm.svelte';

const READ = {
  'POST /api/address/read': { body: { value: null, notes: [], findings: [], slip: null, usable: false } },
};
const SCHEMES = {
  'GET /api/schemes': { body: [{ segmentId: 4, name: 'Garden Barn, Shop floor', prefixLength: 24 }] },
};
const type = (label: string, value: string) =>
  fireEvent.input(screen.getByLabelText(label), { target: { value } });
const office = {
  id: 7,
  name: 'Office',
  prefix: '10.44.17.0/24',
  gateway: '10.44.17.1',
  resolvers: ['10.44.17.1', '203.0.113.9'],
  pools: [{ from: '10.44.17.100', to: '10.44.17.199' }],
  vlan: 17,
  leaseMinutes: 90,
  method: 'RESERVED',
  canReserve: true,
  notes: '',
  prefix6: null,
  gateway6: null,
  fixed6: false,
  nextPrefix: null,
};

describe('the form of a segment', () => {
  afterEach(() => vi.unstubAllGlobals());

  it('is filled by another one that it is laid out like', async () => {
    const sent = answering({
      ...READ,
      ...SCHEMES,
      'GET /api/schemes/4': {
        body: {
          gateway: '10.71.4.1',
          resolvers: ['10.71.4.1', '203.0.113.9'],
          pools: [{ from: '10.71.4.100', to: '10.71.4.199' }],
          series: ['Till'],
        },
      },
      'POST /api/sites/1/segments': { status: 201, body: { id: 8 } },
    });
    show(SegmentForm, { siteId: 1 });
    await type('Name', 'Practice');
    await type('Prefix', '10.71.4.0/24');
    await fireEvent.change(await screen.findByLabelText('Lay it out like'), { target: { value: '4' } });
    await waitFor(() => expect(screen.getByLabelText('Gateway')).toHaveValue('10.71.4.1'));
    expect(screen.getByLabelText('Second resolver')).toHaveValue('203.0.113.9');
    await fireEvent.click(screen.getByRole('button', { name: 'Add the segment' }));
    await waitFor(() => expect(sent.some((s) => s.call === 'POST /api/sites/1/segments')).toBe(true));
    expect(sent.find((s) => s.call === 'POST /api/sites/1/segments')?.body).toMatchObject({
      name: 'Practice',
      gateway: '10.71.4.1',
      pools: [{ from: '10.71.4.100', to: '10.71.4.199' }],
      likeSegmentId: 4,
    });
  });

  it('has the pair of resolvers worked out from what is at hand, and takes it', async () => {
    const sent = answering({
      ...READ,
      ...SCHEMES,
      'POST /api/resolvers/choice': {
        body: { resolvers: ['10.71.4.1', '203.0.113.9'], reason: 'The site’s own first.' },
      },
    });
    show(SegmentForm, { siteId: 1 });
    await type('First resolver', '10.71.4.1');
    expect(screen.getByLabelText('The site’s own')).toHaveValue('10.71.4.1');
    await type('A public pair', '203.0.113.9, 203.0.113.10');
    await fireEvent.click(screen.getByLabelText(/port 53/));
    await fireEvent.click(screen.getByRole('button', { name: 'Work it out' }));
    await fireEvent.click(await screen.findByRole('button', { name: 'Take these' }));
    expect(screen.getByLabelText('Second resolver')).toHaveValue('203.0.113.9');
    expect(sent.find((s) => s.call === 'POST /api/resolvers/choice')?.body).toEqual({
      site: ['10.71.4.1'],
      provider: [],
      open: ['203.0.113.9', '203.0.113.10'],
      insideNames: false,
      outsideAllowed: false,
    });
  });

  it('says why it cannot be laid out so, and leaves what was typed', async () => {
    answering({
      ...READ,
      ...SCHEMES,
      'GET /api/schemes/4': {
        status: 422,
        body: { code: 'bad-value', detail: 'This scheme is for a /24, the prefix found is 10.71.4.0/25.' },
      },
    });
    show(SegmentForm, { siteId: 1 });
    await type('Prefix', '10.71.4.0/25');
    await fireEvent.change(await screen.findByLabelText('Lay it out like'), { target: { value: '4' } });
    expect(await screen.findByText(/This scheme is for a \/24/)).toBeInTheDocument();
    expect(screen.getByLabelText('Prefix')).toHaveValue('10.71.4.0/25');
    await waitFor(() => expect(screen.getByLabelText('Lay it out like')).toHaveValue('0'));
  });

  it('shows all of a segment that has more than the usual, and sends it back whole', async () => {
    const done = vi.fn();
    const sent = answering({ ...READ, ...SCHEMES, 'PUT /api/sites/1/segments/7': { status: 204 } });
    show(SegmentForm, { siteId: 1, segment: office, etag: '"5"', done });
    expect(screen.getByLabelText('VLAN id')).toHaveValue('17');
    expect(screen.getByLabelText('Lease time in hours')).toHaveValue('1.5');
    expect(screen.queryByLabelText('Numbered series')).toBeNull();
    await fireEvent.click(screen.getByRole('button', { name: 'One more pool' }));
    await type('And from', '10.44.17.220');
    await fireEvent.click(screen.getByRole('button', { name: 'Keep the change' }));
    await waitFor(() => expect(done).toHaveBeenCalled());
    const put = sent.find((s) => s.call.startsWith('PUT'));
    expect(put?.ifMatch).toBe('"5"');
    expect(put?.body).toMatchObject({
      vlan: 17,
      leaseMinutes: 90,
      method: 'RESERVED',
      pools: [
        { from: '10.44.17.100', to: '10.44.17.199' },
        { from: '10.44.17.220', to: '' },
      ],
    });
  });

  it.each([
    ['/gateway', 'Till 1 has that address. Move it first.', 'Gateway'],
    ['/vlan', 'Another segment of this site has that VLAN id.', 'VLAN id'],
  ])('names what is refused at %s and keeps the form', async (pointer, message, label) => {
    answering({
      ...READ,
      ...SCHEMES,
      'PUT /api/sites/1/segments/7': {
        status: 409,
        body: { code: 'x', detail: message, errors: [{ pointer, message }] },
      },
    });
    const done = vi.fn();
    show(SegmentForm, { siteId: 1, segment: office, etag: '"5"', done });
    const before = (screen.getByLabelText(label) as HTMLInputElement).value;
    await fireEvent.click(screen.getByRole('button', { name: 'Keep the change' }));
    expect((await screen.findAllByText(message)).length).toBeGreaterThan(0);
    expect(screen.getByLabelText(label)).toHaveValue(before);
    expect(done).not.toHaveBeenCalled();
  });
});
