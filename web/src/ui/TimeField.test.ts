import { fireEvent, screen } from '@testing-library/svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { answering, show } from '../test/answers';
import { siteClock } from './siteClock.svelte';
import TimeField from './TimeField.svelte';

const read = (value: string | null, message: string, candidates: string[] = []) => ({
  'POST /api/sites/4/time/read': {
    body: value
      ? { value, notes: [{ code: 'SAID', message }], findings: [], slip: null, usable: true }
      : {
          value,
          notes: [],
          findings: [{ code: 'UNREADABLE', message, position: null, candidates }],
          slip: null,
          usable: false,
        },
  },
});
const field = () => screen.getByLabelText('By which day');
const type = (text: string) => fireEvent.input(field(), { target: { value: text } });

describe('a day as the site writes it', () => {
  afterEach(() => {
    vi.unstubAllGlobals();
    siteClock.day = 'd MMM yyyy';
  });

  it('shows by example how it is written there', () => {
    Object.assign(siteClock, { id: 4, day: 'dd.MM.yyyy' });
    show(TimeField, { label: 'By which day', form: 'DAY' });
    expect(screen.getByText(/^Such as \d\d\.\d\d\.\d{4}$/)).toBeInTheDocument();
  });

  it('says in words what was typed, and leaves what stands on record alone', async () => {
    siteClock.id = 4;
    const sent = answering(read('2026-12-05', 'Reads as Saturday 5 December 2026.'));
    show(TimeField, { label: 'By which day', form: 'DAY', value: '4 Dec 2026' });
    await new Promise((done) => setTimeout(done, 250));
    expect(sent).toHaveLength(0);
    await type('5.12.2026');
    expect(await screen.findByText('Reads as Saturday 5 December 2026.')).toBeInTheDocument();
    expect(sent[0]?.body).toEqual({ text: '5.12.2026', form: 'DAY' });
  });

  it('asks when two days can be meant, and takes the one that is pressed', async () => {
    siteClock.id = 4;
    answering(read(null, 'Which is the day here, and which the month?', ['2026-04-03', '2026-03-04']));
    show(TimeField, { label: 'By which day', form: 'DAY' });
    await type('3/4/2026');
    expect(await screen.findByText('Which is the day here, and which the month?')).toBeInTheDocument();
    expect(field()).toHaveAttribute('aria-invalid', 'true');
    await fireEvent.click(screen.getByRole('button', { name: '2026-03-04' }));
    expect(field()).toHaveValue('2026-03-04');
  });
});
