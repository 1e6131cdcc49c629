import { fireEvent, screen, waitFor } from '@testing-library/svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { answering, show } from '../../test/answers';
import RenumberRun from './RenumberRun.svelte';

const step = (kind: string, title: string, to: string | null = null) => ({
  kind,
  title,
  lines: ['Do it.'],
  mover: to ? 9 : null,
  from: null,
  to,
});
const run = (done: number, mayGiveUp: boolean) => ({
  id: 3,
  siteId: 1,
  segmentId: 1,
  segment: 'Shop floor',
  from: '10.44.16.0/24',
  to: '10.60.2.0/24',
  steps: [
    step('PREPARE', 'Prepare the way back'),
    step('MOVE', 'Move Till 1', '10.60.2.51'),
    step('PROVE', 'Prove'),
  ],
  done,
  startedAt: '2026-11-24T10:00:00Z',
  startedBy: 'Imke',
  ended: false,
  mayGiveUp,
  version: 1,
});
const GET = 'GET /api/renumberings/3';

describe('a running renumbering', () => {
  afterEach(() => vi.unstubAllGlobals());

  it('shows the step that is due with its address in groups, and what is done already', async () => {
    answering({ [GET]: { body: run(1, false) } });
    show(RenumberRun, { id: 3, mayWork: true });
    expect(await screen.findByText('Step 2 of 3')).toBeInTheDocument();
    expect(document.querySelectorAll('[data-step] [data-knot=PASSED]')).toHaveLength(1);
    const figures = [...document.querySelectorAll('[translate=no]')].map((e) => e.textContent);
    expect(figures).toEqual(['10.60.2.51']);
    expect(screen.queryByRole('button', { name: 'Give it up' })).toBeNull();
  });

  it.each([
    [/Step done/, 'POST /api/renumberings/3/steps', 0],
    ['Take the last step back', 'DELETE /api/renumberings/3/steps/last', 1],
    ['Give it up', 'DELETE /api/renumberings/3', 0],
  ])('sends %s with the version it saw', async (name, call, done) => {
    const sent = answering({ [GET]: { body: run(done, true), etag: '"7"' }, [call]: { body: run(1, true) } });
    show(RenumberRun, { id: 3, mayWork: true });
    await fireEvent.click(await screen.findByRole('button', { name }));
    await waitFor(() => expect(sent.find((s) => s.call === call)?.ifMatch).toBe('"7"'));
  });

  it('says who was quicker, and keeps the step', async () => {
    answering({
      [GET]: { body: run(0, true) },
      'POST /api/renumberings/3/steps': {
        status: 412,
        body: { code: 'changed-meanwhile', detail: 'Somebody changed this in the meantime.' },
      },
    });
    show(RenumberRun, { id: 3, mayWork: true });
    await fireEvent.click(await screen.findByRole('button', { name: /Step done/ }));
    expect(await screen.findByText('Somebody changed this in the meantime.')).toBeInTheDocument();
    expect(screen.getByText('Step 1 of 3')).toBeInTheDocument();
  });

  it('lets the office look on', async () => {
    answering({ [GET]: { body: run(0, true) } });
    show(RenumberRun, { id: 3, mayWork: false });
    expect(await screen.findByText('Step 1 of 3')).toBeInTheDocument();
    expect(screen.queryByRole('button', { name: /Done/ })).toBeNull();
  });
});
