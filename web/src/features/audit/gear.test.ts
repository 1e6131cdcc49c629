import { render, screen } from '@testing-library/svelte';
import { expect, test, vi } from 'vitest';
import type { Schemas } from '../../api/client';
import GearOne from './GearOne.svelte';

vi.mock('../../router', () => ({
  at: (...parts: unknown[]) => parts.join('/'),
  pastAt: (site: number, asked: Record<string, string>) => `${site}?${new URLSearchParams(asked)}`,
}));

type Port = Schemas['PortLineView'];
const port = (number: number, more: Partial<Port> = {}): Port => ({
  label: `Shop switch ${number}`,
  told: true,
  link: 'UP',
  megabits: 1000,
  power: '',
  other: '',
  through: false,
  right: false,
  hung: [],
  remarks: [],
  ...more,
});
const till = { endpointId: 7, name: 'Till 1', mac: '00:00:5E:00:53:01' };
const stranger = { endpointId: 0, name: '00:00:5E:00:53:E1', mac: '00:00:5E:00:53:E1' };

function shown(ports: Port[], wrong: number) {
  const read = { at: '2026-11-30T10:00:00Z', by: 'Imke', ownName: 'sw', wrong, remarks: ['Cut off.'], ports };
  const gear = { id: 1, name: 'Shop switch', type: 'SWITCH' as const, address: '10.7.0.2', reads: [read] };
  render(GearOne, { siteId: 1, mayWork: false, gear });
}

test.each([
  [0, 'Nothing is wrong with its ports'],
  [1, 'One port needs a hand'],
  [3, '3 ports need a hand'],
])('says how many of its ports need a hand: %i', (wrong, words) => {
  shown([port(1)], wrong);
  expect(screen.getByRole('status').textContent).toContain(words);
});

test('a port says who hangs there, a dark one at which nobody is expected is only counted', () => {
  shown(
    [
      port(1, { hung: [till], right: true }),
      port(2, { hung: [stranger], megabits: 100, power: 'FEEDING' }),
      port(3, { link: 'DOWN', megabits: 0 }),
      port(4, { hung: [till, stranger], through: true, other: 'Yard switch' }),
      port(5, { told: false, link: 'UNKNOWN', megabits: 0 }),
      port(6, { link: 'DOWN', remarks: [{ wrong: true, says: 'Till 2 is dark.', act: 'Look.' }] }),
    ],
    1,
  );
  const rows = screen.getAllByRole('row').slice(1);
  expect(rows.map((r) => r.textContent?.replaceAll(/\s+/g, ' ').trim())).toEqual([
    expect.stringMatching(/Shop switch 1 ?1 Gbit\/s ?Till 1/),
    expect.stringMatching(/Shop switch 2 ?100 Mbit\/s, feeds power ?00:00:5E:00:53:E1, not on record/),
    expect.stringMatching(/Shop switch 4 ?1 Gbit\/s ?Leads on to Yard switch: 2 are behind it\./),
    expect.stringMatching(/Shop switch 6 ?Dark ?Till 2 is dark. ?Look\./),
  ]);
  expect(screen.getByText('Cut off.')).toBeTruthy();
  expect(screen.getByText(/2 more ports are dark/)).toBeTruthy();
  expect(screen.queryByRole('button')).toBeNull();
});
