import { fireEvent, screen, waitFor } from '@testing-library/svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { answering, show } from '../../test/answers';
import MendList from './MendList.svelte';

vi.mock('../../router', () => ({
  at: (site: number, station: string, to = '') => `/${site}/${station}/${to}`,
}));

const pooled = {
  severity: 'RISK',
  code: 'IN_POOL',
  message: 'Yard label printer: 10.44.16.140 lies in the pool.',
  mend: 'Move it to 10.44.16.5, or end the pool at 10.44.16.139.',
  endpoints: [9],
  segmentId: 1,
  move: { endpointId: 9, to: '10.44.16.5' },
};
const dead = { ...pooled, severity: 'BROKEN', code: 'WIRING', message: 'Outlet G-02 is dead.', move: null };
const CONFLICTS = 'GET /api/sites/1/conflicts';

describe('what is to mend', () => {
  afterEach(() => vi.unstubAllGlobals());

  it('keeps the order of the server and shows how bad each is', async () => {
    answering({ [CONFLICTS]: { body: [dead, pooled] } });
    show(MendList, { siteId: 1, mayWork: true });
    await screen.findByText('Outlet G-02 is dead.');
    const knots = [...document.querySelectorAll('[data-conflict] [data-knot]')];
    expect(knots.map((k) => k.getAttribute('data-knot'))).toEqual(['FAILED', 'ACTIVE']);
    expect(screen.getByRole('link', { name: 'Outlet G-02 is dead.' })).toHaveAttribute('href', '/1/plan/9');
  });

  it('moves an endpoint from the version that it just looked at', async () => {
    const sent = answering({
      [CONFLICTS]: { body: [pooled] },
      'GET /api/endpoints/9': { body: { id: 9 }, etag: '"4"' },
      'PATCH /api/endpoints/9': { body: { id: 9 } },
    });
    show(MendList, { siteId: 1, mayWork: true });
    await fireEvent.click(await screen.findByRole('button', { name: 'Move it on record' }));
    await waitFor(() => expect(sent.some((s) => s.call.startsWith('PATCH'))).toBe(true));
    const patch = sent.find((s) => s.call.startsWith('PATCH'));
    expect(patch).toMatchObject({
      ifMatch: '"4"',
      body: { address: '10.44.16.5', reason: 'Mended: ' + pooled.message },
    });
  });

  it('says when somebody was quicker', async () => {
    answering({
      [CONFLICTS]: { body: [pooled] },
      'GET /api/endpoints/9': { body: { id: 9 } },
      'PATCH /api/endpoints/9': {
        status: 409,
        body: { code: 'address-taken', detail: '10.44.16.5 is taken by Copier.' },
      },
    });
    show(MendList, { siteId: 1, mayWork: true });
    await fireEvent.click(await screen.findByRole('button', { name: 'Move it on record' }));
    expect(await screen.findByText('10.44.16.5 is taken by Copier.')).toBeInTheDocument();
  });

  it('lets those who look on see it, without moving anything', async () => {
    answering({ [CONFLICTS]: { body: [pooled] } });
    show(MendList, { siteId: 1, mayWork: false });
    await screen.findByText(pooled.message);
    expect(screen.queryByRole('button')).toBeNull();
  });

  it.each([
    [[], 'Nothing clashes and nothing is at risk.'],
    [Array.from({ length: 7 }, (_, i) => ({ ...dead, message: 'Outlet ' + i + ' is dead.' })), 'All 7'],
  ])('says when there is nothing, or more than fits (%#)', async (body, text) => {
    answering({ [CONFLICTS]: { body } });
    show(MendList, { siteId: 1, mayWork: true, most: 5 });
    expect(await screen.findByText(text)).toBeInTheDocument();
  });

  it('offers to try again when the server is away', async () => {
    answering({ [CONFLICTS]: { status: 503, body: { detail: 'The database cannot be reached.' } } });
    show(MendList, { siteId: 1, mayWork: true });
    expect(await screen.findByText('The database cannot be reached.')).toBeInTheDocument();
    expect(screen.getByRole('button', { name: 'Try again' })).toBeInTheDocument();
  });
});
