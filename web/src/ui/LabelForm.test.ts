import { fireEvent, screen, waitFor } from '@testing-library/svelte';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { answering, show } from '../test/answers';
import { disk } from '../test/disk';
import LabelForm from './LabelForm.svelte';

vi.mock('idb-keyval', () => import('../test/disk'));

const reading = (value: string | null, message = '', candidates: string[] = []) => ({
  value,
  usable: value !== null,
  notes: [],
  findings: message ? [{ code: 'IMPOSSIBLE_CHARACTER', message, position: 0, candidates }] : [],
  slip: null,
});
const label = (macs: string[], serial: string | null = null, rest: string[] = []) => ({
  macs: macs.map((text) => ({ text, reading: reading(text) })),
  serial: serial ? { text: serial, reading: reading(serial) } : null,
  model: null,
  rest,
});
const endpoint = {
  etag: '"3"',
  data: { id: 8, siteId: 1, kind: 'copier', mac: null, serial: '', model: '', labelPlace: 'Inside the door' },
};
const LABELS = 'GET /api/endpoints/8/labels';
const TEXT = 'POST /api/endpoints/8/label-text';

function shown(answers: Parameters<typeof answering>[0], next?: () => void) {
  const sent = answering({
    [LABELS]: { body: [] },
    'POST /api/mac/read': { body: reading('00:00:5E:00:53:40') },
    'POST /api/serial/read': { body: reading('KX0000001') },
    'PATCH /api/endpoints/8': { body: {} },
    ...answers,
  });
  show(LabelForm, { endpoint, next });
  return sent;
}

async function scan(text: string) {
  const field = screen.getByLabelText('Scan or paste the label');
  await fireEvent.input(field, { target: { value: text } });
  await fireEvent.keyDown(field, { key: 'Enter' });
}

describe('reading a label', () => {
  beforeEach(() => vi.useRealTimers());
  afterEach(() => vi.unstubAllGlobals());

  it('sorts what a wedge typed into its fields, and waits for the next code', async () => {
    const sent = shown({ [TEXT]: { body: label(['00005E005340'], 'KX0000001') } });
    await scan('00005E005340;KX0000001');
    expect(await screen.findByDisplayValue('00005E005340')).toBe(screen.getByLabelText('MAC'));
    expect(screen.getByLabelText('Serial')).toHaveValue('KX0000001');
    expect(screen.getByText('Found the MAC, the serial.')).toBeInTheDocument();
    expect(screen.getByLabelText('Scan or paste the label')).toHaveValue('');
    expect(sent.find((s) => s.call === TEXT)?.body).toEqual({ text: '00005E005340;KX0000001' });
  });

  it('asks which of two MACs is plugged in, and says what nobody could place', async () => {
    shown({ [TEXT]: { body: label(['00005E005340', '00005E005341'], null, ['4006381333931']) } });
    await scan('x');
    expect(await screen.findByText(/Another MAC on it: 00005E005341/)).toHaveTextContent(
      'Found the MAC. Another MAC on it: 00005E005341. Which one is plugged in? Nobody could place 4006381333931.',
    );
  });

  it('offers what a doubtful character may be, and guesses nothing', async () => {
    shown({
      'POST /api/mac/read': {
        body: reading(null, '“S” cannot stand in a MAC; 5 looks like it.', ['00:00:5E:00:53:40']),
      },
    });
    await fireEvent.input(screen.getByLabelText('MAC'), { target: { value: '00:00:SE:00:53:40' } });
    await fireEvent.click(await screen.findByRole('button', { name: '00:00:5E:00:53:40' }));
    expect(screen.getByLabelText('MAC')).toHaveValue('00:00:5E:00:53:40');
  });

  it('keeps the label from the version that was seen and goes to the next one', async () => {
    const next = vi.fn();
    const sent = shown({}, next);
    await fireEvent.input(screen.getByLabelText('MAC'), { target: { value: '00005E005340' } });
    await fireEvent.input(screen.getByLabelText('Serial'), { target: { value: 'KX0000001' } });
    await fireEvent.click(screen.getByRole('button', { name: 'Keep MAC and serial' }));
    await waitFor(() => expect(next).toHaveBeenCalledOnce());
    expect(sent.find((s) => s.call.startsWith('PATCH'))).toMatchObject({
      ifMatch: '"3"',
      body: { mac: '00005E005340', serial: 'KX0000001', model: '' },
    });
  });

  it('says that a label is only on this device when nobody can be reached', async () => {
    shown({ 'PATCH /api/endpoints/8': { status: 0 } });
    await fireEvent.input(screen.getByLabelText('MAC'), { target: { value: '00005E005340' } });
    await fireEvent.click(screen.getByRole('button', { name: 'Keep MAC and serial' }));
    expect(await screen.findByText('Kept on this device, and not sent yet.')).toBeInTheDocument();
    expect(screen.queryByText('Kept.')).not.toBeInTheDocument();
    expect([...disk.values()].map((u) => u.did)).toMatchObject([{ label: { mac: '00005E005340' } }]);
  });

  it('stays with what was typed when it is refused', async () => {
    const next = vi.fn();
    shown(
      {
        'PATCH /api/endpoints/8': {
          status: 409,
          body: {
            code: 'mac-taken',
            detail: 'It is registered for Scanner.',
            errors: [{ pointer: '/mac', message: 'It is registered for Scanner.' }],
          },
        },
      },
      next,
    );
    await fireEvent.input(screen.getByLabelText('MAC'), { target: { value: '00005E005340' } });
    await fireEvent.click(screen.getByRole('button', { name: 'Keep MAC and serial' }));
    await waitFor(() => expect(screen.getByLabelText('MAC')).toHaveValue('00005E005340'));
    expect(next).not.toHaveBeenCalled();
  });

  it('says what is hidden by the next step, and asks for the model where variants look alike', async () => {
    shown({
      [LABELS]: {
        body: [
          { fact: 'MAC', where: 'On the back', before: 'Wire it', late: false },
          { fact: 'SERIAL', where: 'On the back', before: 'Unpack', late: true },
          { fact: 'MODEL', where: 'On the back', before: '', late: false },
        ],
      },
    });
    expect(await screen.findByText(/Read it before “Wire it”/)).toBeInTheDocument();
    expect(screen.getByText(/“Unpack” is done and hides it/)).toBeInTheDocument();
    expect(screen.getByLabelText('Model')).toBeInTheDocument();
  });
});
