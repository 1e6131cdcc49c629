import { fireEvent, screen } from '@testing-library/svelte';
import { describe, expect, it, vi } from 'vitest';
import { show } from '../../test/answers';
import Openings from './Openings.svelte';

const opening = (more = {}) => ({
  key: 'firewall',
  title: 'Firewall open',
  closes: 'Switch it on.',
  owner: '',
  closed: false,
  overdue: false,
  ...more,
});

describe('what stands open', () => {
  it.each([
    ['nobody has it in hand', {}, 'Stands open', 'FAILED'],
    [
      'somebody closes it',
      { owner: 'Joris', ends: '2031-11-25' },
      'Joris closes it by 25 Nov 2031',
      'ACTIVE',
    ],
    [
      'its day has passed',
      { owner: 'Joris', ends: '2021-11-25', overdue: true },
      'Joris closes it by 25 Nov 2021: overdue',
      'FAILED',
    ],
    ['it is closed', { closed: true }, 'Closed', 'PASSED'],
  ])('says when %s', (_, more, words, knot) => {
    show(Openings, { openings: [opening(more)], mayWork: true, keep: vi.fn() });
    expect(screen.getByText(words)).toBeInTheDocument();
    expect(document.querySelector(`[data-knot=${knot}]`)).not.toBeNull();
  });

  it('asks where a new password is kept, and nothing more', async () => {
    const keep = vi.fn().mockResolvedValue(true);
    show(Openings, { openings: [opening({ closed: true, secret: true, note: '' })], mayWork: true, keep });
    expect(screen.queryByRole('button', { name: 'Note it' })).toBeNull();
    await fireEvent.input(screen.getByLabelText(/Where is the new one kept/), {
      target: { value: 'Key cabinet, drawer 2' },
    });
    await fireEvent.click(screen.getByRole('button', { name: 'Note it' }));
    expect(keep).toHaveBeenCalledWith('firewall', { closed: true, note: 'Key cabinet, drawer 2' });
  });

  it('is closed with one press, or lent to somebody until a day; what was refused stays typed', async () => {
    const keep = vi.fn().mockResolvedValueOnce(true).mockResolvedValueOnce(false).mockResolvedValueOnce(true);
    show(Openings, { openings: [opening()], mayWork: true, keep });
    await fireEvent.click(screen.getByText('It is closed'));
    expect(keep).toHaveBeenLastCalledWith('firewall', { closed: true });
    await fireEvent.click(screen.getByText('Later, by somebody'));
    await fireEvent.input(screen.getByLabelText('Who closes it'), { target: { value: 'Joris' } });
    await fireEvent.input(screen.getByLabelText('By which day'), { target: { value: '2031-11-25' } });
    await fireEvent.click(screen.getByText('Keep it so'));
    expect(screen.getByLabelText('Who closes it')).toHaveValue('Joris');
    await fireEvent.click(screen.getByText('Keep it so'));
    expect(keep).toHaveBeenLastCalledWith('firewall', { closed: false, owner: 'Joris', ends: '2031-11-25' });
    await vi.waitFor(() => expect(screen.queryByLabelText('Who closes it')).toBeNull());
  });

  it('notes something that no kind knows of, under a key of its own', async () => {
    const keep = vi.fn().mockResolvedValue(true);
    show(Openings, { openings: [opening()], mayWork: true, keep });
    await fireEvent.click(screen.getByText('Something else stands open'));
    await fireEvent.input(screen.getByRole('textbox', { name: 'What stands open' }), {
      target: { value: 'Guest share' },
    });
    await fireEvent.change(screen.getByLabelText('What it is'), { target: { value: 'SHARED_PASSWORD' } });
    await fireEvent.input(screen.getByLabelText('Who closes it'), { target: { value: 'Pia' } });
    await fireEvent.input(screen.getByLabelText('By which day'), { target: { value: '2031-11-25' } });
    await fireEvent.click(screen.getByText('Note it'));
    expect(keep).toHaveBeenLastCalledWith('found-2', {
      closed: false,
      title: 'Guest share',
      owner: 'Pia',
      ends: '2031-11-25',
      danger: 'SHARED_PASSWORD',
    });
  });

  it('can only be looked at by the office', () => {
    show(Openings, { openings: [opening()], mayWork: false, keep: vi.fn() });
    expect(screen.queryByRole('button')).toBeNull();
  });
});
