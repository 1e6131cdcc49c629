import { fireEvent, screen, waitFor } from '@testing-library/svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { answering, show } from '../../test/answers';
import HandOver from './HandOver.svelte';
import Holdings from './Holdings.svelte';

const registry = {
  id: 7,
  name: 'Switch list',
  handedOverAt: null,
  rules: { form: 'ETHERS', ownerNeeded: false, sharing: 'NONE' },
};
const CHOICES = {
  'GET /api/registry-choices': {
    body: { forms: [{ form: 'ETHERS', words: 'ethers lines', needsAddress: false }], types: [] },
  },
};
const view = (more = {}) => ({
  text: '00:00:5e:00:53:40 copier\n',
  file: 'PGB-switch-list.ethers',
  added: 1,
  changed: 0,
  gone: 0,
  leftOut: [],
  objected: [],
  ...more,
});

describe('handing a list over', () => {
  afterEach(() => vi.unstubAllGlobals());

  it('shows what goes out and what stays, before anything is handed over', async () => {
    const sent = answering({
      ...CHOICES,
      'POST /api/registries/7/hand-overs': {
        body: view({
          objected: [
            { endpointId: 4, endpoint: 'Scanner', objections: [{ message: 'No MAC is on record.' }] },
          ],
        }),
      },
    });
    show(HandOver, { registry, siteId: 1, done: () => {} });
    expect(await screen.findByText('One unit stays here until put right')).toBeInTheDocument();
    expect(screen.getByText('No MAC is on record.')).toBeInTheDocument();
    expect(screen.getByLabelText(/What goes out: 1 new/)).toHaveValue('00:00:5e:00:53:40 copier\n');
    expect(sent.every((s) => s.call.startsWith('GET') || (s.body as { preview: boolean }).preview)).toBe(
      true,
    );
    await fireEvent.click(screen.getByRole('button', { name: 'Hand over 1' }));
    expect(await screen.findByRole('button', { name: 'Save PGB-switch-list.ethers' })).toBeInTheDocument();
    expect(sent.filter((s) => (s.body as { preview?: boolean })?.preview === false)).toHaveLength(1);
    expect(screen.getByLabelText('Form')).toBeDisabled();
  });

  it('has nothing to hand over when nothing changed', async () => {
    answering({
      ...CHOICES,
      'POST /api/registries/7/hand-overs': { body: view({ added: 0, text: '# none\n' }) },
    });
    show(HandOver, {
      registry: { ...registry, handedOverAt: '2026-11-24T10:00:00Z' },
      siteId: 1,
      done: () => {},
    });
    expect(await screen.findByText('Nothing has changed since the last hand-over.')).toBeInTheDocument();
    expect(screen.getByRole('button', { name: 'Hand over 0' })).toBeDisabled();
    expect(screen.getByLabelText(/Only what changed/)).toBeChecked();
  });
});

describe('comparing with what is there', () => {
  afterEach(() => vi.unstubAllGlobals());

  it('takes a list over only after it was compared', async () => {
    const lines = [
      { outcome: 'DIFFERS', line: 2, unit: 4, name: 'Scanner', said: 'Two figures swapped.' },
      { outcome: 'AS_WANTED', line: 1, unit: 3, name: 'Copier', said: 'As it should be.' },
    ];
    let preview = true;
    vi.stubGlobal(
      'fetch',
      vi.fn(async (request: Request) => {
        const url = new URL(request.url, 'http://x');
        if (url.pathname.endsWith('holdings')) preview = url.searchParams.get('preview') === 'true';
        const body = url.pathname.endsWith('choices')
          ? CHOICES['GET /api/registry-choices'].body
          : { preview, lines, asWanted: 1, problems: [] };
        return new Response(JSON.stringify(body), { headers: { 'Content-Type': 'application/json' } });
      }),
    );
    show(Holdings, { registry, siteId: 1, done: () => {} });
    expect(screen.getByRole('button', { name: 'Compare' })).toBeDisabled();
    await fireEvent.input(screen.getByLabelText('Or paste it here'), {
      target: { value: '00:00:5E:00:53:40 a' },
    });
    await fireEvent.click(screen.getByRole('button', { name: 'Compare' }));
    expect(await screen.findByText('1 of 2 as it should be')).toBeInTheDocument();
    expect(screen.getByText(/Two figures swapped\./)).toBeInTheDocument();
    await fireEvent.click(screen.getByRole('button', { name: 'Take it over' }));
    expect(await screen.findByText('Taken over.')).toBeInTheDocument();
    expect(preview).toBe(false);
    // Another text is another list: it is compared anew.
    await fireEvent.input(screen.getByLabelText('Or paste it here'), { target: { value: 'x' } });
    await waitFor(() => expect(screen.queryByText('Taken over.')).toBeNull());
  });

  it('names line and column of what cannot be read', async () => {
    vi.stubGlobal(
      'fetch',
      vi.fn(
        async (request: Request) =>
          new Response(
            JSON.stringify(
              request.url.includes('choices')
                ? CHOICES['GET /api/registry-choices'].body
                : {
                    preview: true,
                    lines: [],
                    asWanted: 0,
                    problems: [{ line: 3, column: 'mac', message: '“G” cannot stand in a MAC.' }],
                  },
            ),
            { headers: { 'Content-Type': 'application/json' } },
          ),
      ),
    );
    show(Holdings, { registry, siteId: 1, done: () => {} });
    await fireEvent.input(screen.getByLabelText('Or paste it here'), { target: { value: 'x' } });
    await fireEvent.click(screen.getByRole('button', { name: 'Compare' }));
    expect(await screen.findByText('The list cannot be read; nothing is taken')).toBeInTheDocument();
    expect(screen.getByText(/“G” cannot stand in a MAC/)).toHaveTextContent(
      'Line 3 in mac: “G” cannot stand in a MAC.',
    );
  });
});
