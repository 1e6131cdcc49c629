import { fireEvent, screen, waitFor } from '@testing-library/svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { answering, show } from '../../test/answers';
import SwapSheet from './SwapSheet.svelte';

vi.mock('../../router', () => ({
  at: (site: number, station: string, to = '') => `/${site}/${station}/${to}`,
}));

const step = (act: string, title: string, more = {}) => ({
  act,
  title,
  detail: 'What to do.',
  ticked: false,
  mayTick: true,
  waits: '',
  ...more,
});
const swap = {
  id: 5,
  endpointId: 9,
  endpoint: 'Storage box',
  oldUnit: 'MAC 00:00:5E:00:53:E4',
  newUnit: 'MAC 00:00:5E:00:53:F2',
  steps: [
    step('UNPLUG', 'Unplug the old unit', { ticked: true, mayTick: false }),
    step('TAKE_OUT', 'Take the old one out of Portal'),
    step('PUT_IN', 'Put the new one into Portal', { mayTick: false, waits: 'The old one goes out first.' }),
    step('PROVE', 'Prove it', { mayTick: false, waits: 'The sign-off at Confirm does this.' }),
  ],
  leftovers: ['Portal holds 00:00:5E:00:53:E4 as “Storage box”.'],
  startedAt: '2026-11-25T10:00:00Z',
  startedBy: 'Imke Rasmund',
  ended: false,
  version: 3,
};

describe('a swap', () => {
  afterEach(() => vi.unstubAllGlobals());

  it('lets only that be ticked which may be, and says what the others wait for', async () => {
    const sent = answering({ 'PUT /api/swaps/5/steps/1': { body: swap } });
    show(SwapSheet, { swap, siteId: 1, mayWork: true });
    expect(screen.getByLabelText('Put the new one into Portal')).toBeDisabled();
    expect(screen.getByText(/The old one goes out first\./)).toBeInTheDocument();
    expect(screen.queryByLabelText('Prove it')).toBeNull();
    await fireEvent.click(screen.getByLabelText('Take the old one out of Portal'));
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]).toMatchObject({ ifMatch: '"3"', body: { ticked: true } });
  });

  it('shows where the old unit still stands, and closes only when nothing is open', async () => {
    answering({});
    const { unmount } = show(SwapSheet, { swap, siteId: 1, mayWork: true });
    expect(screen.getByText(swap.leftovers[0] as string)).toBeInTheDocument();
    expect(screen.queryByRole('button', { name: 'Close the sheet' })).toBeNull();
    unmount();
    const sent = answering({ 'POST /api/swaps/5/closing': { body: swap } });
    const done = { ...swap, steps: swap.steps.map((s) => ({ ...s, ticked: true })), leftovers: [] };
    show(SwapSheet, { swap: done, siteId: 1, mayWork: true });
    expect(screen.getByText('No old value is left anywhere.')).toBeInTheDocument();
    await fireEvent.click(screen.getByRole('button', { name: 'Close the sheet' }));
    await waitFor(() => expect(sent.map((s) => s.call)).toContain('POST /api/swaps/5/closing'));
  });

  it('says why a tick was refused', async () => {
    answering({
      'PUT /api/swaps/5/steps/1': { status: 412, body: { code: 'x', detail: 'Somebody changed this.' } },
    });
    show(SwapSheet, { swap, siteId: 1, mayWork: true });
    await fireEvent.click(screen.getByLabelText('Take the old one out of Portal'));
    expect(await screen.findByText('Somebody changed this.')).toBeInTheDocument();
  });
});
