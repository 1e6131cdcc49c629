import { fireEvent, screen, waitFor } from '@testing-library/svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { answering, show } from '../../test/answers';
import DatesForm from './DatesForm.svelte';
import GearForm from './GearForm.svelte';
import OutletForm from './OutletForm.svelte';
import PlaceForm from './PlaceForm.svelte';
import ServiceLine from './ServiceLine.svelte';
import Sheet from './Sheet.svelte';
import SiteForm from './SiteForm.svelte';

const port = (id: number, number: number, role = 'LAN') => ({
  id,
  gearId: 5,
  gear: 'Shop switch',
  number,
  role,
  segmentId: 1,
  poe: false,
});
const gear = {
  id: 5,
  name: 'Shop switch',
  type: 'SWITCH' as const,
  place: 'Back',
  ports: [port(51, 1, 'UPLINK'), port(52, 2)],
};
const sheet = {
  etag: '"8"',
  data: {
    site: {
      id: 1,
      name: 'Shop',
      code: 'SHP',
      zone: 'UTC',
      dates: 'WORDS' as const,
      clientId: null,
      client: null,
      nameRule: '{site}-{kind}{number}',
      feed: '',
      feedNote: '',
      feedPortId: null,
      version: 8,
    },
    clients: [],
    segments: [{ id: 1, name: 'Shop floor' }],
    series: [],
    places: [{ id: 2, siteId: 1, name: 'Front', walk: 10 }],
    gear: [gear],
    outlets: [],
  },
};
const refusal = (pointer: string, message: string) => ({
  status: 409,
  body: { code: 'x', detail: message, errors: [{ pointer, message }] },
});

describe('the forms of the site sheet', () => {
  afterEach(() => vi.unstubAllGlobals());

  it('adds a place from the version that was seen, and closes', async () => {
    const done = vi.fn();
    const sent = answering({ 'PUT /api/sites/1/places/0': { body: { id: 3 } } });
    show(PlaceForm, { sheet, done });
    await fireEvent.input(screen.getByLabelText('Name'), { target: { value: 'Yard' } });
    await fireEvent.click(screen.getByRole('button', { name: 'Add the place' }));
    await waitFor(() => expect(done).toHaveBeenCalled());
    expect(sent[0]).toMatchObject({ ifMatch: '"8"', body: { name: 'Yard' } });
  });

  it('makes the next change from what the last one left, however slowly that is read', async () => {
    const whole = { ...sheet.data, segments: [], gear: [], services: [] };
    const answers: Parameters<typeof answering>[0] = {
      'GET /api/sites/1/sheet': { body: whole, etag: '"8"' },
      'GET /api/session': { body: { name: 'Imke Rasmund', role: 'LEAD' } },
      'PUT /api/sites/1/places/0': { body: { id: 3 } },
    };
    const sent = answering(answers);
    show(Sheet, { siteId: 1, mayWork: true });
    await screen.findByText('Add a place');
    answers['GET /api/sites/1/sheet'] = { body: whole, etag: '"9"', after: 200 };
    for (const name of ['Yard', 'Shed']) {
      await fireEvent.click(screen.getByText('Add a place'));
      await fireEvent.input(screen.getByLabelText('Name'), { target: { value: name } });
      await fireEvent.click(screen.getByText('Add the place'));
      await waitFor(() => expect(screen.queryByText('Add the place')).toBeNull());
    }
    expect(sent.filter((s) => s.call.startsWith('PUT')).map((s) => s.ifMatch)).toEqual(['"8"', '"9"']);
  });

  it('keeps what was typed when the name is taken, and says so at the field', async () => {
    const done = vi.fn();
    answering({ 'PUT /api/sites/1/places/2': refusal('/name', 'Another place of this site is called so.') });
    show(PlaceForm, { sheet, row: sheet.data.places[0], done });
    await fireEvent.input(screen.getByLabelText('Name'), { target: { value: 'Back' } });
    await fireEvent.click(screen.getByRole('button', { name: 'Keep the change' }));
    expect(await screen.findByText('Another place of this site is called so.')).toBeInTheDocument();
    expect(screen.getByLabelText('Name')).toHaveValue('Back');
    expect(done).not.toHaveBeenCalled();
  });

  it('says who still uses what should be removed', async () => {
    answering({ 'DELETE /api/sites/1/things/PLACES/2': refusal('/', 'This is still used by Till 1.') });
    show(PlaceForm, { sheet, row: sheet.data.places[0], done: () => undefined });
    await fireEvent.click(screen.getByRole('button', { name: 'Remove it' }));
    expect(await screen.findByText('This is still used by Till 1.')).toBeInTheDocument();
  });

  it('lets a lead choose by example how days are written, from the version that was seen', async () => {
    const done = vi.fn();
    const example = (style: string, text: string) => ({ style, day: '', brief: '', time: '', example: text });
    const sent = answering({
      'GET /api/date-styles': {
        body: [example('WORDS', '29 Mar 2026, 14:05'), example('MONTH_FIRST', '03/29/2026, 2:05 pm')],
      },
      'PUT /api/sites/1/dates': { status: 204 },
    });
    show(DatesForm, { sheet, done });
    await screen.findByRole('option', { name: '03/29/2026, 2:05 pm' });
    const field = screen.getByLabelText('Days and times are written');
    expect(field).toHaveValue('WORDS');
    await fireEvent.change(field, { target: { value: 'MONTH_FIRST' } });
    await fireEvent.click(screen.getByRole('button', { name: 'Keep the change' }));
    await waitFor(() => expect(done).toHaveBeenCalled());
    expect(sent.find((s) => s.call.startsWith('PUT'))).toMatchObject({
      ifMatch: '"8"',
      body: { dates: 'MONTH_FIRST' },
    });
  });

  it('asks for the port only when an outlet is patched', async () => {
    const sent = answering({ 'PUT /api/sites/1/outlets/0': { body: { id: 4 } } });
    show(OutletForm, { sheet, done: () => undefined });
    expect(screen.queryByLabelText('Port')).toBeNull();
    await fireEvent.input(screen.getByLabelText('Name'), { target: { value: 'F-07' } });
    await fireEvent.change(screen.getByLabelText('Where it leads'), { target: { value: 'PATCHED' } });
    await fireEvent.change(screen.getByLabelText('Port'), { target: { value: '52' } });
    await fireEvent.click(screen.getByRole('button', { name: 'Add the outlet' }));
    await waitFor(() => expect(sent[0]?.body).toMatchObject({ name: 'F-07', state: 'PATCHED', portId: 52 }));
  });

  it.each([
    ['4', [1, 2, 3, 4]],
    ['1', [1]],
    ['400', Array.from({ length: 96 }, (_, i) => i + 1)],
  ])('gives gear %s ports and keeps the roles of those there are', async (count, numbers) => {
    const sent = answering({ 'PUT /api/sites/1/gear/5': { body: { id: 5 } } });
    show(GearForm, { sheet, row: gear, segmentName: () => 'Shop floor', done: () => undefined });
    await fireEvent.input(screen.getByLabelText('How many ports'), { target: { value: count } });
    await fireEvent.change(screen.getByLabelText('How many ports'));
    await fireEvent.click(screen.getByRole('button', { name: 'Keep the change' }));
    await waitFor(() => expect(sent.length).toBeGreaterThan(0));
    const ports = (sent[0]?.body as { ports: { number: number; role: string }[] }).ports;
    expect(ports.map((p) => p.number)).toEqual(numbers);
    expect(ports[0]?.role).toBe('UPLINK');
  });

  it('offers only ports that lead upwards for the feed', async () => {
    const sent = answering({ 'PUT /api/sites/1': { status: 204 } });
    show(SiteForm, { sheet, done: () => undefined });
    const select: HTMLSelectElement = screen.getByLabelText('Into the port');
    expect([...select.options].map((o) => o.text)).toEqual(['not known yet', 'Shop switch 1, uplink']);
    await fireEvent.change(screen.getByLabelText('How it is fed'), { target: { value: 'MODEM' } });
    await fireEvent.click(screen.getByRole('button', { name: 'Keep the change' }));
    await waitFor(() => expect(sent[0]?.body).toMatchObject({ name: 'Shop', feed: 'MODEM' }));
  });
});

describe('a service that the site calls', () => {
  it('is tried, and says what to change', async () => {
    answering({
      'POST /api/sites/1/services/5/try': {
        body: {
          status: 'FAILED',
          seen: 'It stays silent.',
          remedy: 'Try once more in a minute.',
          vantage: '',
        },
      },
    });
    const row = { id: 5, siteId: 1, name: 'Mail relay', protocol: 'SMTP', host: 'mail.example', port: 587 };
    show(ServiceLine, { siteId: 1, row, change: vi.fn() });
    await fireEvent.click(screen.getByRole('button', { name: 'Try Mail relay' }));
    expect(await screen.findByText('It stays silent.')).toBeVisible();
    expect(screen.getByText('Try once more in a minute.')).toBeVisible();
  });
});
