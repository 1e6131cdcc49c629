import { fireEvent, screen, waitFor } from '@testing-library/svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { answering, show } from '../../test/answers';
import EntryLine from './EntryLine.svelte';
import { blank, listed, stateKnot, stateWords, type RegistryLine } from './states';

const registry = { id: 7, name: 'Staff portal', type: 'PORTAL' } as Parameters<typeof blank>[0];
const unit = {
  id: 3,
  name: 'Copier',
  mac: '00:00:5E:00:53:40',
  address: '10.1.1.4',
  serial: '',
} as Parameters<typeof blank>[1];
const base: RegistryLine = {
  ...blank(registry, unit),
  id: 9,
  version: 4,
  state: 'IN_FORCE',
  entry: { ...blank(registry, unit).entry, name: 'Copier hall', owner: 'Ada' },
};
const stale: RegistryLine['stale'] = [
  { fact: 'MAC', holds: '00:00:5E:00:53:40', truth: '00:00:5E:00:53:77' },
];

function shown(line: RegistryLine, mayWork = true) {
  const register = vi.fn();
  show(EntryLine, { line, siteId: 1, mayWork, of: 'registry', register });
  return register;
}

describe('how an entry stands', () => {
  it.each([
    [{ state: 'TO_REGISTER' }, 'to register', 'PENDING'],
    [{ state: 'SUBMITTED' }, 'handed in', 'ACTIVE'],
    [{ state: 'SUBMITTED', restartPending: true }, 'stands there, restart pending', 'ACTIVE'],
    [{ state: 'IN_FORCE' }, 'in force', 'PASSED'],
    [{ state: 'EXPIRING' }, 'ends soon', 'ACTIVE'],
    [{ state: 'ENDED' }, 'run out', 'FAILED'],
    [{ state: 'IN_FORCE', stale }, 'holds old facts', 'FAILED'],
    [{ state: 'ENDED', endedAt: '2026-11-25T10:00:00Z', stale }, 'taken out', 'SKIPPED'],
    [{ id: null, state: 'TO_REGISTER', stale }, 'to register', 'PENDING'],
  ] as [Partial<RegistryLine>, string, string][])('%o is said and drawn', (part, words, knot) => {
    expect(stateWords({ ...base, ...part })).toBe(words);
    expect(stateKnot({ ...base, ...part })).toBe(knot);
  });

  it('reads lists as people type them', () => {
    expect(listed('Ada, Ben;\n Cleo ,,')).toEqual(['Ada', 'Ben', 'Cleo']);
    expect(listed('  ')).toEqual([]);
  });
});

describe('an entry on the screen', () => {
  afterEach(() => vi.unstubAllGlobals());

  it.each([
    [{ state: 'SUBMITTED' }, 'It stands there', 'ENTER'],
    [{ state: 'SUBMITTED', restartPending: true }, 'It has restarted', 'RESTARTED'],
    [{ state: 'EXPIRING' }, 'Renewed', 'RENEW'],
    [{ state: 'ENDED' }, 'Registered again', 'RENEW'],
    [{ state: 'IN_FORCE', stale }, 'Corrected there', 'ENTER'],
    [{ state: 'TO_REGISTER' }, 'Handed in', 'HAND_IN'],
  ] as [Partial<RegistryLine>, string, string][])('%o offers one thing to do', async (part, button, act) => {
    const sent = answering({ 'POST /api/registrations/9/acts': { body: {} } });
    shown({ ...base, ...part });
    await fireEvent.click(screen.getByRole('button', { name: button + ': Copier' }));
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]).toMatchObject({ ifMatch: '"4"', body: { act } });
  });

  it('opens the form for what is not registered yet', async () => {
    const register = shown({ ...base, id: null, state: 'TO_REGISTER' });
    await fireEvent.click(screen.getByRole('button', { name: 'Register: Copier' }));
    expect(register).toHaveBeenCalledOnce();
    expect(screen.queryByRole('button', { name: /Take/ })).toBeNull();
  });

  it('names the old fact beside the true one, and what speaks against a new entry', () => {
    shown({ ...base, stale });
    expect(screen.getByText(/The MAC there is/)).toHaveTextContent(
      'The MAC there is 00:00:5E:00:53:40; it is 00:00:5E:00:53:77.',
    );
    shown({
      ...base,
      id: null,
      objections: [{ field: 'mac', code: 'NO_MAC', refuses: true, message: 'No MAC is on record.' }],
    });
    expect(screen.getByText('No MAC is on record.')).toBeInTheDocument();
  });

  it('says when somebody was quicker, and does nothing for those who look on', async () => {
    answering({
      'POST /api/registrations/9/acts': {
        status: 412,
        body: { code: 'changed-meanwhile', detail: 'Somebody changed this.' },
      },
    });
    shown(base);
    await fireEvent.click(screen.getByRole('button', { name: 'Take Copier out of Staff portal' }));
    expect(await screen.findByText('Somebody changed this.')).toBeInTheDocument();
    document.body.innerHTML = '';
    shown({ ...base, state: 'EXPIRING' }, false);
    expect(screen.queryByRole('button')).toBeNull();
  });
});
