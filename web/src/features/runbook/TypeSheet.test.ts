import { fireEvent, render, screen } from '@testing-library/svelte';
import { describe, expect, it } from 'vitest';
import TypeSheet from './TypeSheet.svelte';

const row = (label: string, value: string, spoken: string[] = [], more = {}) => ({
  field: 'ADDRESS' as const,
  label,
  value,
  figures: spoken.length > 0,
  spoken,
  leaveAlone: false,
  ...more,
});
const rows = [
  row('Method', 'Static'),
  row('Address', '10.4.1.5', ['one zero', 'four', 'one', 'five']),
  row('Mask', '255.0.0.0', ['two five five', 'zero', 'zero', 'zero']),
  row('Resolver 2', '', [], { figures: true }),
  row('Speed', 'Auto', [], { leaveAlone: true }),
];

describe('the type sheet', () => {
  it('keeps the order of the menu, and says what to leave alone or empty', () => {
    render(TypeSheet, { rows });
    expect(screen.getAllByRole('term').map((t) => t.textContent)).toEqual(rows.map((r) => r.label));
    expect(screen.getByText('leave it empty')).toBeInTheDocument();
    expect(screen.getByText('leave as it is')).toBeInTheDocument();
    expect(screen.queryByText(/one zero/)).toBeNull();
  });

  it('is dictated digit by digit, and counts what was repeated rightly', async () => {
    render(TypeSheet, { rows });
    await fireEvent.click(screen.getByRole('button', { name: 'Dictate it over the phone' }));
    expect(screen.getByText(/one zero/)).toHaveTextContent('one zero point four point one point five');
    expect(screen.getByRole('status')).toHaveTextContent('0 of 2');
    await fireEvent.click(screen.getByLabelText('Address was repeated rightly'));
    expect(screen.getByRole('status')).toHaveTextContent('1 of 2');
    await fireEvent.click(screen.getByLabelText('Mask was repeated rightly'));
    expect(screen.getByRole('status')).toHaveTextContent('All repeated rightly.');
    await fireEvent.click(screen.getByRole('button', { name: 'Enter it yourself' }));
    expect(screen.queryByText(/one zero/)).toBeNull();
  });
});
