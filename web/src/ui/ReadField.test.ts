import { fireEvent, render, screen, waitFor } from '@testing-library/svelte';
import { describe, expect, it, vi } from 'vitest';
import type { Schemas } from '../api/client';
import Figures from './Figures.svelte';
import Knot from './Knot.svelte';
import ReadField from './ReadField.svelte';

type Reading = Schemas['Reading'];
const reading = (part: Partial<Reading>): Reading => ({
  value: null,
  notes: [],
  findings: [],
  slip: null,
  usable: false,
  ...part,
});
const five = reading({
  findings: [
    {
      code: 'TOO_MANY_GROUPS',
      message: 'Five groups of figures.',
      position: 11,
      candidates: ['10.44.16.57', '10.44.16.5'],
    },
  ],
});

describe('a field that reads what is typed', () => {
  it('shows the finding and takes a candidate with one press', async () => {
    const read = vi.fn(async (text: string) =>
      text === '10.44.16.57' ? reading({ value: text, usable: true }) : five,
    );
    render(ReadField, { label: 'Address', value: '', read });
    const input = screen.getByLabelText('Address');
    await fireEvent.input(input, { target: { value: '10.44.16.5.7' } });
    await fireEvent.click(await screen.findByRole('button', { name: '10.44.16.57' }));
    expect(input).toHaveValue('10.44.16.57');
    await screen.findByText('Reads as');
    expect(input).toHaveAttribute('aria-invalid', 'false');
  });

  it('says when this device read it by itself', async () => {
    const read = async () => ({ ...reading({ value: '10.4.1.5', usable: true }), here: true });
    render(ReadField, { label: 'Address', value: '10.4.1.5', read });
    expect(await screen.findByText(/^Read on this device/)).toBeInTheDocument();
  });

  it.each([
    [
      'a slip',
      reading({
        value: '10.44.16.75',
        usable: true,
        slip: { kind: 'SWAPPED', message: 'Two figures swapped.', position: 9, group: 4 },
      }),
      'Two figures swapped.',
      'true',
    ],
    [
      'a warning',
      reading({
        value: 'x',
        usable: true,
        findings: [{ code: 'NEAR_KNOWN', message: 'Near a known one.', position: null, candidates: [] }],
      }),
      'Near a known one.',
      'false',
    ],
    [
      'a refusal',
      reading({
        value: 'x',
        findings: [{ code: 'IN_POOL', message: 'In the pool.', position: null, candidates: [] }],
      }),
      'In the pool.',
      'true',
    ],
    [
      'a note',
      reading({ value: 'x', usable: true, notes: [{ code: 'BLANKS', message: 'Blanks left out.' }] }),
      'Blanks left out.',
      'false',
    ],
  ])('says %s', async (_, answer, said, invalid) => {
    render(ReadField, { label: 'Field', value: 'typed', read: async () => answer });
    await screen.findByText(said);
    await waitFor(() => expect(screen.getByLabelText('Field')).toHaveAttribute('aria-invalid', invalid));
  });

  it('keeps what was typed when the server cannot be reached', async () => {
    render(ReadField, { label: 'Field', value: '10.44', read: () => Promise.reject(new Error('gone')) });
    await new Promise((done) => setTimeout(done, 250));
    expect(screen.getByLabelText('Field')).toHaveValue('10.44');
  });
});

describe('pictures with one meaning', () => {
  it.each(['PENDING', 'ACTIVE', 'PASSED', 'FAILED', 'SKIPPED'] as const)(
    'draws the knot %s in a shape of its own',
    (state) => {
      const drawn = (s: typeof state, vertical: boolean) =>
        render(Knot, { state: s, vertical }).container.querySelector('svg')?.innerHTML;
      for (const other of ['PENDING', 'ACTIVE', 'PASSED', 'FAILED', 'SKIPPED'] as const)
        for (const vertical of [false, true])
          if (other !== state) expect(drawn(state, vertical)).not.toBe(drawn(other, vertical));
    },
  );

  it('keeps an address one text for copying', () => {
    expect(render(Figures, { value: '10.44.16.54' }).container.textContent).toBe('10.44.16.54');
  });
});
