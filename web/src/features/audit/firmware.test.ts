import { fireEvent, screen, within } from '@testing-library/svelte';
import { afterEach, expect, it, vi } from 'vitest';
import { answering, show } from '../../test/answers';
import Firmware from './Firmware.svelte';
import WayBack from './WayBack.svelte';

vi.mock('../../router', () => ({
  at: (site: number, station: string, to: string | number = '') => `/${site}/${station}/${to}`,
  changeAt: () => '/change',
}));

afterEach(() => vi.unstubAllGlobals());

const unit = (id: number, name: string, version = '') => ({
  endpointId: id,
  name,
  place: '',
  model: '',
  version,
  readOn: version ? '2026-11-02' : null,
});
const FIRMWARE = {
  faults: [
    {
      id: 3,
      kind: 'Label printer',
      model: 'LW-30',
      mendedIn: '2.4',
      what: 'It loses its address',
      by: 'Imke',
      here: [
        { verdict: 'OLD', words: 'Has it', unit: unit(4, 'Yard printer', '2.3') },
        { verdict: 'UNREAD', words: 'Not read yet', unit: unit(5, 'Nursery printer') },
      ],
      elsewhere: [{ siteId: 9, site: 'Barn', concerned: 2 }],
      mended: 1,
    },
  ],
  kinds: [{ kind: 'label-printer', name: 'Label printer', count: 2 }],
  kind: 'label-printer',
  units: [unit(4, 'Yard printer', '2.3'), unit(5, 'Nursery printer')],
};

it('names who has a known fault and who was not read, here and elsewhere', async () => {
  const asked = answering({
    'GET /api/sites/1/firmware': { body: FIRMWARE },
    'POST /api/endpoints/5/firmware': {
      status: 422,
      body: {
        code: 'no-version',
        detail: 'x',
        errors: [{ pointer: '/version', code: 'no-version', message: 'A version has a figure in it.' }],
      },
    },
  });
  show(Firmware, { siteId: 1, mayWork: true });
  await screen.findByRole('list', { name: 'Known faults' });
  expect(screen.getByRole('status')).toHaveTextContent('2 units here have a known fault, or may have it.');
  const fault = within(screen.getByRole('list', { name: 'Known faults' }));
  expect(fault.getByText('Label printer LW-30 before 2.4', { exact: false })).toHaveTextContent(
    'It loses its address',
  );
  expect(fault.getByText('Has it:').parentElement).toHaveTextContent('Yard printer (2.3)');
  expect(fault.getByText('Not read yet:').parentElement).toHaveTextContent('Nursery printer');
  expect(fault.getByRole('link', { name: 'Barn' })).toHaveAttribute('href', '/9/audit/firmware');
  await fireEvent.click(
    within(screen.getByRole('list', { name: 'What was read' }).lastElementChild as HTMLElement).getByRole(
      'button',
    ),
  );
  await fireEvent.input(screen.getByLabelText('Version'), { target: { value: 'new' } });
  await fireEvent.submit(screen.getByLabelText('Version').closest('form') as HTMLFormElement);
  expect(await screen.findByText('A version has a figure in it.')).toBeVisible();
  expect(screen.getByLabelText('Version')).toHaveValue('new');
  expect(asked.find((a) => a.call.startsWith('POST'))?.body).toMatchObject({ version: 'new', day: '' });
});

it('opens the steps again from the version that was seen, once', async () => {
  const asked = answering({
    'GET /api/endpoints/4/way-back': {
      etag: '"7"',
      body: {
        words: 'Another address was typed into it',
        back: {
          how: 'RETYPED',
          says: 'It was seen elsewhere.',
          surer: 'Ask who worked at it then.',
          gone: [],
          data: false,
          ways: [
            {
              act: 'REDO_ADDRESS',
              title: 'Put .51 back on it',
              before: 'Move Till 2 first.',
              steps: ['Enter it'],
              minutes: 9,
              alone: 4,
            },
            {
              act: 'REPOINT',
              title: 'Leave it',
              before: '',
              steps: ['Tell the till'],
              minutes: 12,
              alone: 0,
            },
          ],
        },
      },
    },
    'POST /api/endpoints/4/runbook/address-again': { body: {} },
  });
  show(WayBack, { siteId: 1, id: 4, mayWork: true });
  expect(await screen.findByText('Most likely: Another address was typed into it')).toBeVisible();
  expect(screen.getByText('Move Till 2 first.')).toBeVisible();
  expect(screen.getByText('about 9 min and 4 by itself', { exact: false })).toBeVisible();
  await fireEvent.click(screen.getByRole('button', { name: 'Open these steps again' }));
  expect(await screen.findByText('Its steps are open again.')).toBeVisible();
  expect(screen.queryByRole('button', { name: 'Open these steps again' })).toBeNull();
  const sent = asked.filter((a) => a.call.startsWith('POST'));
  expect(sent).toHaveLength(1);
  expect(sent[0]).toMatchObject({
    ifMatch: '"7"',
    body: { why: 'Another address was typed into it, by what was seen.' },
  });
});
