import { fireEvent, screen, waitFor } from '@testing-library/svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { answering, show } from '../../test/answers';
import EntryForm from './EntryForm.svelte';
import { blank } from './states';

const registry = { id: 7, name: 'Portal', type: 'PORTAL' } as Parameters<typeof blank>[0];
const unit = { id: 3, name: 'Copier', mac: '00:00:5E:00:53:40', address: null, serial: '' } as Parameters<
  typeof blank
>[1];
const line = blank(registry, unit);
const rules = { naming: 'WORDS', longestName: 40, ownerNeeded: true, sharing: 'BY_KIND', waitsFor: '' };
const JUDGED = 'POST /api/registries/7/judgement';
const objection = (field: string, refuses: boolean, message: string) => ({
  field,
  refuses,
  message,
  code: field.toUpperCase(),
});

describe('registering a unit', () => {
  afterEach(() => vi.unstubAllGlobals());

  it('is not let out while something speaks against it', async () => {
    answering({
      [JUDGED]: { body: { ...line, objections: [objection('owner', true, 'Say whose entry it is.')] } },
    });
    show(EntryForm, { line, rules, siteId: 1, done: () => {} });
    expect(await screen.findByText('Say whose entry it is.')).toBeInTheDocument();
    expect(screen.getByRole('button', { name: 'Hand it in' })).toBeDisabled();
  });

  it('sends what was typed once, with a reason where one is asked', async () => {
    const done = vi.fn();
    const sent = answering({
      [JUDGED]: { body: { ...line, objections: [objection('', false, 'Copier is away.')] } },
      'POST /api/registries/7/registrations': { status: 201, body: { id: 1 } },
    });
    show(EntryForm, { line, rules, siteId: 1, done });
    expect(await screen.findByText('Copier is away.')).toBeInTheDocument();
    await fireEvent.input(screen.getByLabelText('Whose entry it is'), { target: { value: 'Ada' } });
    await fireEvent.input(screen.getByLabelText('Shared with'), { target: { value: 'Ben, Cleo' } });
    await fireEvent.input(screen.getByLabelText('Why all the same'), { target: { value: 'Back tomorrow' } });
    await fireEvent.click(screen.getByLabelText(/It stands there already/));
    await fireEvent.click(screen.getByRole('button', { name: 'It is registered' }));
    await waitFor(() => expect(done).toHaveBeenCalledOnce());
    expect(sent.find((s) => s.call.endsWith('/registrations'))?.body).toMatchObject({
      endpointId: 3,
      owner: 'Ada',
      sharedWith: ['Ben', 'Cleo'],
      reason: 'Back tomorrow',
      entered: true,
    });
  });

  it('changes the people of an entry, or what its service issued, and nothing besides', async () => {
    const there = { ...line, id: 9, version: 2, type: 'SERVICE' as const };
    const sent = answering({ [JUDGED]: { body: there }, 'POST /api/registrations/9/acts': { body: there } });
    show(EntryForm, { line: there, rules, siteId: 1, done: () => {} });
    await fireEvent.input(screen.getByLabelText('Whose entry it is'), { target: { value: 'Eva' } });
    await fireEvent.click(screen.getByRole('button', { name: 'Keep the change' }));
    await waitFor(() => expect(sent.filter((s) => s.call.endsWith('/acts'))).toHaveLength(1));
    await fireEvent.input(screen.getByLabelText('What the service issued'), { target: { value: 'a@fax' } });
    await fireEvent.click(screen.getByRole('button', { name: 'Keep the change' }));
    await waitFor(() => expect(sent.filter((s) => s.call.endsWith('/acts'))).toHaveLength(2));
    expect(sent.filter((s) => s.call.endsWith('/acts')).map((s) => s.body)).toEqual([
      { act: 'CHANGE', name: '', owner: 'Eva', sharedWith: [], reason: '' },
      { act: 'ISSUED', issued: 'a@fax', issuedUsed: '' },
    ]);
  });

  it('keeps the form when the server refuses after all', async () => {
    const done = vi.fn();
    answering({
      [JUDGED]: { body: line },
      'POST /api/registries/7/registrations': {
        status: 409,
        body: {
          code: 'NAME_TWICE',
          detail: 'That name was just registered there.',
          errors: [{ pointer: '/name', message: 'That name was just registered there.' }],
        },
      },
    });
    show(EntryForm, { line, rules, siteId: 1, done });
    await fireEvent.input(screen.getByLabelText('Name there'), { target: { value: 'Copier hall' } });
    await fireEvent.click(screen.getByRole('button', { name: 'Hand it in' }));
    expect(await screen.findByText('That name was just registered there.')).toBeInTheDocument();
    expect(screen.getByLabelText('Name there')).toHaveValue('Copier hall');
    expect(done).not.toHaveBeenCalled();
  });
});
