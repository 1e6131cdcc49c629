import { fireEvent, render, screen } from '@testing-library/svelte';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { Schemas } from '../../api/client';
import Tape from './Tape.svelte';

const go = vi.hoisted(() => vi.fn());
vi.mock('../../router', () => ({
  at: (site: number, station: string, to = '') => `/${site}/${station}/${to}`,
  go,
}));

const segment = (lastHost: number): Schemas['SegmentView'] => ({
  id: 1,
  name: 'Shop floor',
  prefix: lastHost > 255 ? '10.40.0.0/16' : '10.44.16.0/24',
  mask: '255.255.255.0',
  gateway: '10.44.16.1',
  gatewayHost: 1,
  resolvers: [],
  lastHost,
  pools: [{ name: 'Handed out automatically', fromHost: 100, toHost: 199 }],
  series: [{ name: 'Till', fromHost: 51, toHost: 70 }],
  fixable: 153,
  living: 3,
});
const mark = (id: number, host: number, conflict = false): Schemas['TapeMark'] => ({
  id,
  host,
  label: id ? 'Till ' + id : 'Workstation',
  status: 'PENDING',
  conflict,
});
const tape = (marks: Schemas['TapeMark'][]): Schemas['TapeView'] => ({
  marks,
  free: [{ fromHost: 200, toHost: 254, count: 55 }],
  elsewhere: [],
  nextPrefix: null,
});
const shown = (props: Record<string, unknown>) =>
  render(Tape, { siteId: 1, segment: segment(255), tape: tape([mark(1, 51), mark(2, 52)]), ...props });
const svg = () => screen.getByRole('group');

describe('the tape', () => {
  beforeEach(() => go.mockReset());

  it('hangs a tag for each, the gateway among them, and names the runs', () => {
    shown({});
    expect(screen.getByRole('link', { name: 'Till 1, host 51' })).toHaveAttribute('href', '/1/plan/1');
    expect(screen.getByText('Gateway')).toBeInTheDocument();
    expect(screen.getByText('Till, 51 to 70')).toBeInTheDocument();
    expect(screen.getByText('Handed out automatically, 100 to 199')).toBeInTheDocument();
    expect(screen.getByText('55 free')).toBeInTheDocument();
  });

  it('goes to the endpoint of a tag, and says which is in conflict', async () => {
    shown({ tape: tape([mark(1, 51), mark(2, 140, true)]) });
    await fireEvent.click(screen.getByRole('link', { name: 'Till 2, host 140, in conflict' }));
    expect(go).toHaveBeenCalledWith('/1/plan/2');
  });

  it.each([
    ['+', '+', 'hosts 64 to 191'],
    ['++', '+ +', 'hosts 96 to 159'],
    ['+ then along', '+ ArrowRight', 'hosts 96 to 223'],
    ['+ then back', '+ Home', 'hosts 0 to 255'],
    ['- on the whole', '-', 'hosts 0 to 255'],
  ])('answers to the keys %s', async (_, keys, range) => {
    shown({});
    for (const key of keys.split(' ')) await fireEvent.keyDown(svg(), { key });
    expect(svg().getAttribute('aria-label')).toContain(range);
  });

  it('leaves keys alone that belong to the browser', async () => {
    shown({});
    await fireEvent.keyDown(svg(), { key: '+', ctrlKey: true });
    expect(svg().getAttribute('aria-label')).toContain('hosts 0 to 255');
  });

  it('shows partners only when one is near enough, however many share a look', async () => {
    shown({ tape: tape([mark(0, 31), mark(0, 32), mark(1, 51)]) });
    expect(screen.queryByText('Workstation')).toBeNull();
    for (let i = 0; i < 2; i++) await fireEvent.keyDown(svg(), { key: '+' });
    for (let i = 0; i < 5; i++) await fireEvent.keyDown(svg(), { key: 'ArrowLeft' });
    expect(svg().getAttribute('aria-label')).toContain('hosts 16 to 79');
    expect(screen.getAllByText('Workstation')).toHaveLength(2);
  });

  it('bunches five thousand tags and opens a bunch with Enter', async () => {
    shown({
      segment: segment(65_535),
      tape: tape(Array.from({ length: 5000 }, (_, i) => mark(i + 1, 2 + i * 13))),
    });
    const bunches = screen.getAllByRole('button', { name: /tags from/ });
    expect(bunches.length).toBeLessThan(40);
    expect(bunches[0]).toHaveAccessibleName(/^\d+ tags from 0\.1 to /);
    await fireEvent.keyDown(bunches[0] as HTMLElement, { key: 'Enter' });
    expect(svg().getAttribute('aria-label')).not.toContain('to 65535');
    expect(go).not.toHaveBeenCalled();
  });

  it('offers the free stretches as buttons, only to those who may plan', async () => {
    const plant = vi.fn();
    const { rerender } = shown({ plant });
    await fireEvent.click(screen.getByRole('button', { name: '200–254' }));
    expect(plant).toHaveBeenCalledWith(200);
    await rerender({ plant: undefined });
    expect(screen.queryByRole('button', { name: '200–254' })).toBeNull();
  });

  it('shows where new ones would go, and that a renumbering runs', () => {
    shown({
      proposed: [{ host: 54, label: 'Till 4 goes here' }],
      tape: {
        ...tape([mark(1, 51)]),
        nextPrefix: '10.60.2.0/24',
        elsewhere: [{ id: 9, name: 'X', address: '10.60.2.9' }],
      },
    });
    expect(screen.getByText('Till 4 goes here')).toBeInTheDocument();
    expect(screen.getByText(/1 stand in the other network now/)).toBeInTheDocument();
  });
});
