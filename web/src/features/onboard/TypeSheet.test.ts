import { fireEvent, screen, waitFor } from '@testing-library/svelte';
import { describe, expect, it } from 'vitest';
import { answering, show } from '../../test/answers';
import TypeSheet from './TypeSheet.svelte';

const row = (label: string, value: string, spoken: string[] = [], more = {}) => ({
  field: label.toUpperCase().replace(' ', '_'),
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
  row('Till number', ''),
  row('Port', '7451', ['seven four five one'], { figures: false }),
];

describe('the type sheet', () => {
  it('keeps the order of the menu, and says what to leave alone or empty', () => {
    show(TypeSheet, { rows, endpointId: 7 });
    expect(screen.getAllByRole('term').map((t) => t.textContent)).toEqual(rows.map((r) => r.label));
    expect(screen.getByText('leave it empty')).toBeInTheDocument();
    expect(screen.getByText('nothing is planned: leave as it is')).toBeInTheDocument();
    expect(screen.getByText('leave as it is')).toBeInTheDocument();
    expect(screen.queryByText(/one zero/)).toBeNull();
  });

  it('is dictated digit by digit, and what is repeated is scored', async () => {
    const score = (right: number) => ({ body: { right, of: 2, fields: [] } });
    const sent = answering({
      'POST /api/endpoints/7/runbook/call-sheet': score(1),
      'POST /api/address/read': { body: { value: '10.4.1.5', notes: [], findings: [], usable: true } },
    });
    show(TypeSheet, { rows, endpointId: 7 });
    await fireEvent.click(screen.getByRole('button', { name: 'Dictate it over the phone' }));
    expect(screen.getByText(/one zero/)).toHaveTextContent('one zero point four point one point five');
    await fireEvent.input(screen.getByLabelText('Address as it was repeated'), {
      target: { value: '10.4.1.5' },
    });
    await waitFor(() => expect(screen.getByRole('status')).toHaveTextContent('1 of 2 right'));
    expect(sent.filter((s) => s.call.endsWith('call-sheet')).at(-1)?.body).toEqual({
      repeated: { ADDRESS: '10.4.1.5' },
      part: '',
    });
    expect(screen.getByText('seven four five one')).toBeInTheDocument();
    answering({
      'POST /api/endpoints/7/runbook/call-sheet': {
        body: {
          right: 1,
          of: 2,
          fields: [
            { field: 'PORT', label: 'Port', heard: true, right: false, message: '“7541” instead of “7451”.' },
          ],
        },
      },
    });
    await fireEvent.input(screen.getByLabelText('Port as it was repeated'), { target: { value: '7541' } });
    expect(await screen.findByText('“7541” instead of “7451”.')).toBeInTheDocument();
    answering({ 'POST /api/endpoints/7/runbook/call-sheet': score(2) });
    await fireEvent.input(screen.getByLabelText('Mask as it was repeated'), {
      target: { value: '255.0.0.0' },
    });
    await waitFor(() => expect(screen.getByRole('status')).toHaveTextContent('All repeated rightly.'));
    await fireEvent.click(screen.getByRole('button', { name: 'Enter it yourself' }));
    expect(screen.queryByText(/one zero/)).toBeNull();
  });
});
