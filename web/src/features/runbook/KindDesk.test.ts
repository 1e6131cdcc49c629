import { fireEvent, screen, waitFor } from '@testing-library/svelte';
import { describe, expect, it } from 'vitest';
import { answering, show } from '../../test/answers';
import KindDesk from './KindDesk.svelte';

const KINDS = {
  body: [
    { id: 'clock', name: 'Time clock', version: 2, shipped: true },
    { id: 'badge', name: 'Badge printer', version: 4, shipped: false },
  ],
};
const area = () => screen.getByLabelText<HTMLTextAreaElement>('The kind as YAML');

describe('kinds as files', () => {
  it('names the line that is wrong and goes there; only a file that holds is kept', async () => {
    const sent = answering({
      'GET /api/kinds': KINDS,
      'POST /api/kinds/check': {
        body: { findings: [{ line: 2, column: 1, message: 'Nothing asks for “roof”.' }], steps: [] },
      },
    });
    show(KindDesk, { lead: true });
    await screen.findByText('Time clock');
    await fireEvent.input(area(), { target: { value: 'id: x\nwhen: roof\nname: y' } });
    await fireEvent.click(await screen.findByRole('button', { name: 'Line 2' }));
    expect(area().value.slice(area().selectionStart, area().selectionEnd)).toBe('when: roof');
    expect(screen.getByRole('button', { name: 'Keep this version' })).toBeDisabled();
    expect(sent.some((s) => s.call === 'POST /api/kinds')).toBe(false);
  });

  it('keeps a file that holds, and says so; what was refused stays in the field', async () => {
    const holds = { body: { findings: [], steps: ['Read the label', 'Confirm that it works'] } };
    answering({
      'GET /api/kinds': KINDS,
      'POST /api/kinds/check': holds,
      'POST /api/kinds': {
        status: 409,
        body: { code: 'version-taken', detail: 'Somebody kept it just now.' },
      },
    });
    show(KindDesk, { lead: true });
    await screen.findByText('Badge printer');
    await fireEvent.input(area(), { target: { value: 'id: badge' } });
    await screen.findByText('Confirm that it works');
    await fireEvent.click(screen.getByRole('button', { name: 'Keep this version' }));
    await screen.findByText('Somebody kept it just now.');
    expect(area()).toHaveValue('id: badge');
    answering({
      'GET /api/kinds': KINDS,
      'POST /api/kinds/check': holds,
      'POST /api/kinds': { status: 201, body: KINDS.body[1] },
    });
    await fireEvent.click(screen.getByRole('button', { name: 'Keep this version' }));
    await waitFor(() => expect(screen.getByText(/Badge printer, version 4, is kept/)).toBeInTheDocument());
  });

  it('lets others read the files and change none', async () => {
    answering({ 'GET /api/kinds': KINDS });
    show(KindDesk, { lead: false });
    await screen.findByText('Time clock');
    expect(screen.getAllByRole('link', { name: 'File' })).toHaveLength(2);
    expect(screen.queryByRole('textbox')).toBeNull();
    expect(screen.queryByRole('button')).toBeNull();
  });
});
