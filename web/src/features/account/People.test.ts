import { fireEvent, screen, within } from '@testing-library/svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { answering, show } from '../../test/answers';
import OwnSignIn from './OwnSignIn.svelte';
import People from './People.svelte';
import { base64url } from './passkeys';

const AT = '2026-12-01T08:00:00Z';
const person = (id: number, name: string, more = {}) => ({
  id,
  name,
  role: 'TECHNICIAN',
  everySite: true,
  workplaces: [],
  version: 3,
  closedAt: null,
  lastSeen: AT,
  signedIn: 0,
  ...more,
});
const PEOPLE = [
  person(1, 'Imke Rasmund', { role: 'LEAD', signedIn: 1 }),
  person(2, 'Joris Teel', { signedIn: 2 }),
  person(3, 'Pia Onwald', { lastSeen: null, closedAt: AT }),
];
const sign = (id: number, what: string, who: string | null) => ({
  id,
  at: AT,
  person: who,
  caller: '192.0.2.7',
  what,
});

function open(more: Parameters<typeof answering>[0] = {}) {
  const sent = answering({
    'GET /api/people': { body: PEOPLE },
    'GET /api/invitations': {
      body: [{ id: 9, role: 'OFFICE', invitedBy: 'Imke Rasmund', madeAt: AT, expiresAt: AT, person: null }],
    },
    'GET /api/sign-ins': { body: [sign(5, 'REFUSED', null), sign(4, 'CLOSED', 'Pia Onwald')] },
    ...more,
  });
  show(People, { me: 'Imke Rasmund' });
  return sent;
}
const line = async (name: string) => within((await screen.findByText(name)).closest('li') as HTMLElement);

describe('people', () => {
  afterEach(() => vi.unstubAllGlobals());

  it('says how each stands, and offers for oneself only what a lead can need', async () => {
    open();
    expect((await line('Imke Rasmund')).queryByText('New password')).toBeNull();
    expect((await line('Joris Teel')).getByText(/; signed in now, 2 times$/)).toBeVisible();
    expect((await line('Pia Onwald')).getByText(/^Closed since/)).toBeVisible();
    expect(
      await screen.findByText(/Somebody whose name is not on record\s+typed a wrong password/),
    ).toBeVisible();
    expect(screen.getByText(/Pia Onwald\s+tried to sign in; the account is closed/)).toBeVisible();
    expect(screen.getByText(/Invitation as office/)).toBeVisible();
  });

  it('closes an account only after a second press, from the version that was seen', async () => {
    const sent = open({ 'PUT /api/people/2': { status: 204 } });
    const joris = await line('Joris Teel');
    await fireEvent.click(joris.getByText('Close the account'));
    expect(sent.filter((s) => s.call.startsWith('PUT'))).toEqual([]);
    await fireEvent.click(joris.getByText('Close it'));
    await vi.waitFor(() =>
      expect(sent).toContainEqual({
        call: 'PUT /api/people/2',
        body: { role: 'TECHNICIAN', closed: true, everySite: true, sites: [] },
        ifMatch: '"3"',
      }),
    );
  });

  it('chooses where somebody works, and goes on from what was chosen', async () => {
    const sites = [1, 2, 3].map((id) => ({ id, name: `Shop ${id}`, code: 'S', client: '', endpoints: 0 }));
    const sent = open({
      'GET /api/people': {
        body: [person(2, 'Joris Teel', { everySite: false, workplaces: [{ id: 1, name: 'Shop 1' }] })],
      },
      'GET /api/sites': { body: sites },
      'PUT /api/people/2': { status: 204 },
    });
    const joris = await line('Joris Teel');
    await fireEvent.click(joris.getByText('Only at Shop 1'));
    expect(await joris.findByLabelText('Shop 1')).toBeChecked();
    await fireEvent.click(joris.getByLabelText('Shop 1'));
    expect(joris.getByText('Keep it so')).toBeDisabled();
    await fireEvent.click(joris.getByLabelText('Shop 3'));
    await fireEvent.click(joris.getByText('Keep it so'));
    await vi.waitFor(() =>
      expect(sent).toContainEqual({
        call: 'PUT /api/people/2',
        body: { role: 'TECHNICIAN', closed: false, everySite: false, sites: [3] },
        ifMatch: '"3"',
      }),
    );
  });

  it('puts a role back that was refused, and says why', async () => {
    open({
      'PUT /api/people/1': {
        status: 409,
        body: { code: 'last-lead', detail: 'Imke Rasmund is the only lead.' },
      },
    });
    const imke = await line('Imke Rasmund');
    const select = imke.getByLabelText<HTMLSelectElement>('What Imke Rasmund does');
    await fireEvent.change(select, { target: { value: 'OFFICE' } });
    expect(await imke.findByText('Imke Rasmund is the only lead.')).toBeVisible();
    expect(select.value).toBe('LEAD');
  });
});

describe('the own sign-in', () => {
  afterEach(() => vi.unstubAllGlobals());

  it.each([
    [null, /belongs to the name of this page, and none is set yet/],
    ['https://knot.example.test', /Open it as/],
    [location.origin, /This browser is too old to make one/],
  ])('says where passkeys work when the page belongs to %s', async (passkeysAt, said) => {
    answering({
      'GET /api/me/sessions': { body: [] },
      'GET /api/me/passkeys': { body: [{ id: 'a', label: 'Blue phone', made: AT, lastUsed: AT }] },
      'GET /api/welcome': { body: { demo: false, people: [], passkeysAt } },
    });
    show(OwnSignIn, {});
    expect(await screen.findByText(said)).toBeVisible();
    expect(screen.getByText(/not used yet/)).toBeVisible();
    expect(screen.queryByText('Add a passkey')).toBeNull();
  });

  it.each([
    ['f', 'Zg'],
    ['fooba', 'Zm9vYmE'],
    ['\xfb\xff\xfe', '-__-'],
  ])('writes %s as base64url (RFC 4648, 5 and 10)', (bytes, written) => {
    expect(base64url(Uint8Array.from(bytes, (c) => c.charCodeAt(0)).buffer)).toBe(written);
  });

  it('keeps what was typed when it is refused, and forgets it when it is done', async () => {
    const refused = {
      code: 'wrong-password',
      detail: 'No.',
      errors: [{ pointer: '/current', code: 'x', message: 'Not yours.' }],
    };
    const answers: Parameters<typeof answering>[0] = {
      'GET /api/me/sessions': {
        body: [{ key: 'a', from: '192.0.2.7', since: AT, lastUsed: AT, here: false }],
      },
      'GET /api/me/passkeys': { body: [] },
      'GET /api/welcome': { body: { demo: false, people: [], passkeysAt: null } },
      'POST /api/me/password': { status: 422, body: refused },
    };
    answering(answers);
    show(OwnSignIn, {});
    expect(await screen.findByText('192.0.2.7')).toBeVisible();
    const old = screen.getByLabelText<HTMLInputElement>('The password that you have now');
    await fireEvent.input(old, { target: { value: 'one' } });
    await fireEvent.input(screen.getByLabelText('The new one'), { target: { value: 'two' } });
    await fireEvent.click(screen.getByText('Change it'));
    expect(await screen.findByText('Not yours.')).toBeVisible();
    expect(old.value).toBe('one');
    answers['POST /api/me/password'] = { status: 204 };
    await fireEvent.click(screen.getByText('Change it'));
    expect(await screen.findByText(/It is changed/)).toBeVisible();
    expect(old.value).toBe('');
  });
});
