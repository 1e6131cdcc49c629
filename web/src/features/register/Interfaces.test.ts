import { fireEvent, screen, waitFor, within } from '@testing-library/svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { answering, show } from '../../test/answers';
import Interfaces from './Interfaces.svelte';

const endpoint = { etag: '"3"', data: { id: 8, siteId: 1, name: 'Kiosk' } };
const face = (id: number, medium: string, mac: string, counts: boolean) => ({
  id,
  medium,
  words: medium.toLowerCase(),
  mac,
  standsAt: '',
  counts,
});
const MEDIA = {
  'GET /api/media': {
    body: [
      { medium: 'WIRED', words: 'wired' },
      { medium: 'ADAPTER', words: 'USB adapter' },
      { medium: 'WIRELESS', words: 'wireless' },
    ],
  },
};

describe('the interfaces of an endpoint', () => {
  afterEach(() => vi.unstubAllGlobals());

  it('keeps the whole list with the one in use, from the version that was seen', async () => {
    const done = vi.fn();
    const sent = answering({ ...MEDIA, 'PUT /api/endpoints/8/interfaces': { body: [] } });
    show(Interfaces, { endpoint, faces: [face(1, 'WIRED', '00:00:5E:00:53:01', true)], done });
    await screen.findAllByRole('option', { name: 'wireless' });
    await fireEvent.click(screen.getByRole('button', { name: 'Another interface' }));
    const second = screen.getByRole('group', { name: 'Interface 2' });
    await fireEvent.input(within(second).getByLabelText('MAC'), { target: { value: '00:00:5E:00:53:02' } });
    await fireEvent.click(within(second).getByRole('radio'));
    await fireEvent.click(screen.getByRole('button', { name: 'Keep the interfaces' }));
    await waitFor(() => expect(done).toHaveBeenCalledOnce());
    const kept = sent.find((s) => s.call.startsWith('PUT'));
    expect(kept?.ifMatch).toBe('"3"');
    expect(kept?.body).toEqual({
      interfaces: [
        { medium: 'WIRED', mac: '00:00:5E:00:53:01', standsAt: '', counts: false },
        { medium: 'ADAPTER', mac: '00:00:5E:00:53:02', standsAt: '', counts: true },
      ],
    });
  });

  it('says what goes along when an adapter moves', async () => {
    answering({
      ...MEDIA,
      'GET /api/sites/1/endpoints': { body: [{ id: 9, name: 'Kiosk 2' }] },
      'POST /api/interfaces/5/moves': { body: { said: ['The identity follows the adapter.'] } },
    });
    show(Interfaces, { endpoint, faces: [face(5, 'ADAPTER', '00:00:5E:00:53:AD', true)], done: () => {} });
    await screen.findByRole('option', { name: 'Kiosk 2' });
    await fireEvent.change(screen.getByLabelText(/is now at another device/), { target: { value: '9' } });
    const move = screen.getByRole('button', { name: 'Move the adapter' });
    await waitFor(() => expect(move).toBeEnabled());
    await fireEvent.click(move);
    expect(await screen.findByText('The identity follows the adapter.')).toBeInTheDocument();
  });
});
