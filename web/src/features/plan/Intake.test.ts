import { fireEvent, screen, waitFor } from '@testing-library/svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { show } from '../../test/answers';
import Intake from './Intake.svelte';

vi.mock('../../router', () => ({ at: () => '/', go: () => undefined }));

const segments = [
  { id: 1, name: 'Shop floor', prefix: '10.44.16.0/24' },
  { id: 2, name: 'Office', prefix: '10.44.17.0/24' },
];
const view = (part: Record<string, unknown>) => ({
  preview: true,
  headers: ['Device', 'IP'],
  columns: { NAME: 0, ADDRESS: 1 },
  made: [],
  seen: 0,
  known: [],
  leftOut: [],
  unused: [],
  problems: [],
  ...part,
});
const row = {
  line: 2,
  name: 'Copier',
  kind: 'copier',
  kindName: 'Copier',
  address: '10.44.16.40',
  mac: null,
  place: '',
  reason: 'As the list says.',
};

/** Takes what is sent as a list, and answers each time with the next. */
function listening(...answers: { status?: number; body: unknown }[]) {
  const sent: { query: URLSearchParams; text: string }[] = [];
  vi.stubGlobal(
    'fetch',
    vi.fn(async (request: Request) => {
      const answer = answers[Math.min(sent.length, answers.length - 1)];
      sent.push({ query: new URL(request.url).searchParams, text: await request.text() });
      return new Response(JSON.stringify(answer?.body), {
        status: answer?.status ?? 200,
        headers: { 'Content-Type': 'application/json' },
      });
    }),
  );
  return sent;
}
const paste = (value: string) =>
  fireEvent.input(screen.getByLabelText('Paste it here'), { target: { value } });
const look = () => fireEvent.click(screen.getByRole('button', { name: 'See what it makes' }));

describe('bringing a list in', () => {
  afterEach(() => vi.unstubAllGlobals());

  it('shows what it makes before anything is changed, then takes it', async () => {
    const sent = listening({ body: view({ made: [row] }) }, { body: view({ made: [row], preview: false }) });
    show(Intake, { siteId: 1, segments, mayWork: true });
    expect(screen.getByRole('button', { name: 'See what it makes' })).toBeDisabled();
    await paste('Device;IP\nCopier;10.44.16.40');
    await look();
    await fireEvent.click(await screen.findByRole('button', { name: 'Bring in 1' }));
    expect(await screen.findByText(/1 brought in/)).toBeInTheDocument();
    expect(sent.map((s) => s.query.get('preview'))).toEqual(['true', 'false']);
    expect(sent.map((s) => s.query.get('source'))).toEqual(['SHEET', 'SHEET']);
  });

  it('keeps the text when the server refuses it', async () => {
    listening({ status: 422, body: { code: 'no-text', detail: 'This is a spreadsheet file, not text.' } });
    show(Intake, { siteId: 1, segments, mayWork: true });
    await paste('PK something');
    await look();
    expect(await screen.findByText('This is a spreadsheet file, not text.')).toBeInTheDocument();
    expect(screen.getByLabelText('Paste it here')).toHaveValue('PK something');
  });

  it('reads again when a column is given another meaning', async () => {
    const sent = listening({ body: view({ made: [row] }) });
    show(Intake, { siteId: 1, segments, mayWork: true });
    await paste('Device;IP\nCopier;10.44.16.40');
    await look();
    await fireEvent.change(await screen.findByLabelText(/Device/), { target: { value: 'PLACE' } });
    await waitFor(() => expect(sent).toHaveLength(2));
    expect(sent[1]?.query.get('columns')?.split(',').sort()).toEqual(['ADDRESS:1', 'PLACE:0']);
    await fireEvent.change(await screen.findByLabelText(/IP/), { target: { value: '' } });
    await waitFor(() => expect(sent).toHaveLength(3));
    expect(sent[2]?.query.get('columns')).toBe('PLACE:0');
  });

  it.each([
    ['Hosts lines', 'HOSTS', 'true'],
    ['Neighbour table', 'NEIGHBOURS', 'false'],
    ['Lease list', 'LEASES', 'false'],
  ])('makes endpoints of %s only when that is usual', async (name, source, make) => {
    const sent = listening({ body: view({ headers: [], columns: {}, seen: 1 }) });
    show(Intake, { siteId: 1, segments, mayWork: true });
    await fireEvent.click(screen.getByRole('radio', { name: new RegExp('^' + name) }));
    await paste('10.44.16.40 00:00:5e:00:53:40');
    await look();
    await waitFor(() => expect(sent).toHaveLength(1));
    expect([sent[0]?.query.get('source'), sent[0]?.query.get('make')]).toEqual([source, make]);
  });

  it('is not for those who look on', () => {
    show(Intake, { siteId: 1, segments, mayWork: false });
    expect(screen.queryByLabelText('Paste it here')).toBeNull();
  });
});
