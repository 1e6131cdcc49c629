import { api, ok, Problem, type Schemas } from '../../api/client';

/** Whether this browser can do it here: a passkey belongs to the name under which the page is open. */
export const passkeysHere = (at?: string | null) =>
  at === location.origin &&
  'PublicKeyCredential' in window &&
  'parseCreationOptionsFromJSON' in PublicKeyCredential;

/** Bytes as base64url (RFC 4648, 5), without padding. */
export const base64url = (bytes: ArrayBuffer) =>
  btoa(String.fromCharCode(...new Uint8Array(bytes)))
    .replaceAll('+', '-')
    .replaceAll('/', '_')
    .replaceAll('=', '');

const WHY: Record<string, string> = {
  InvalidStateError: 'This device holds a passkey for you already.',
  NotAllowedError: 'No passkey was used: it was cancelled, took too long, or the device has none for here.',
};

/** What the device says, or a problem in plain words. */
async function device<R extends AuthenticatorResponse>(
  ask: Promise<Credential | null>,
  kind: abstract new () => R,
): Promise<{ id: string; response: R; clientDataJSON: string }> {
  let answer: Credential | null;
  try {
    answer = await ask;
  } catch (error) {
    const name = error instanceof DOMException ? error.name : '';
    throw new Problem(0, 'no-passkey', WHY[name] ?? 'This device could not do it.');
  }
  if (!(answer instanceof PublicKeyCredential) || !(answer.response instanceof kind))
    throw new Problem(0, 'no-passkey', 'This device could not do it.');
  const { id, response } = answer;
  return { id, response, clientDataJSON: base64url(response.clientDataJSON) };
}

/** Has this device make a passkey, and keeps it under that name. */
export async function makePasskey(label: string, current: string) {
  const asked = await ok(api.POST('/api/me/passkeys/challenge', { body: { current } }));
  const publicKey = PublicKeyCredential.parseCreationOptionsFromJSON(asked);
  const { id, response, clientDataJSON } = await device(
    navigator.credentials.create({ publicKey }),
    AuthenticatorAttestationResponse,
  );
  const attestationObject = base64url(response.attestationObject);
  const transports = response.getTransports();
  await ok(
    api.POST('/api/me/passkeys', { body: { label, id, clientDataJSON, attestationObject, transports } }),
  );
}

/** Enters with whichever passkey is chosen. */
export async function enterWithPasskey(): Promise<Schemas['Session']> {
  const asked = await ok(api.POST('/api/session/challenge'));
  const publicKey = PublicKeyCredential.parseRequestOptionsFromJSON(asked);
  const { id, response, clientDataJSON } = await device(
    navigator.credentials.get({ publicKey }),
    AuthenticatorAssertionResponse,
  );
  const authenticatorData = base64url(response.authenticatorData);
  const signature = base64url(response.signature);
  return ok(api.POST('/api/session/passkey', { body: { id, clientDataJSON, authenticatorData, signature } }));
}
