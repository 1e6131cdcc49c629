import { fireEvent, screen } from '@testing-library/svelte';
import { QueryClient } from '@tanstack/svelte-query';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { endpointsQuery } from '../api/queries';
import { answering, show } from '../test/answers';
import EndpointTable from './EndpointTable.svelte';

vi.mock('../router', () => ({
  at: (site: number, station: string, id: number) => `/${site}/${station}/${id}`,
}));
const endpoint = (n: number) => ({
  id: n,
  name: 'Printer ' + n,
  kind: 'label-printer',
  address: n > 300 ? `10.44.${n >> 8}.${n & 255}` : null,
  place: '',
  mac: null,
  serial: '',
  tagCode: '',
  station: 'REGISTER',
  status: 'PENDING',
});
const many = (count: number) => Array.from({ length: count }, (_, i) => endpoint(i + 1));

describe('a long list', () => {
  afterEach(() => vi.unstubAllGlobals());

  it('is fetched whole, page by page, those without an address too', async () => {
    const all = many(1203);
    const asked: string[] = [];
    vi.stubGlobal('fetch', async (request: Request) => {
      const query = new URL(request.url, 'http://x').searchParams;
      asked.push(query.get('afterAddress') + ' ' + query.get('afterId'));
      const from = all.findIndex((e) => e.id === Number(query.get('afterId'))) + 1;
      return new Response(JSON.stringify(all.slice(from, from + 500)), {
        headers: { 'Content-Type': 'application/json' },
      });
    });
    expect(await new QueryClient().fetchQuery(endpointsQuery(4))).toHaveLength(1203);
    expect(asked).toEqual(['0.0.0.0 0', '10.44.1.244 500', '10.44.3.232 1000']);
  });

  it('shows five hundred at once and says how many more there are', async () => {
    answering({ 'GET /api/kinds': { body: [] } });
    show(EndpointTable, {
      siteId: 4,
      station: 'register',
      lines: many(730),
      wanted: () => true,
      label: 'Endpoints',
    });
    expect(screen.getByText('730 waiting, 730 in all')).toBeInTheDocument();
    const rows = () => document.querySelectorAll('tbody tr').length;
    expect(rows()).toBe(500);
    await fireEvent.click(screen.getByText('Show 230 more of 730'));
    expect(rows()).toBe(730);
    expect(screen.queryByText(/more of/)).toBeNull();
  });
});
