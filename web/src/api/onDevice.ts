import { api, ok, type Schemas } from './client';

/** What a reader says; `here` when this device read it by itself. */
export type Read = Schemas['Reading'] & { here?: boolean };

type Asked = Record<string, unknown>;
type Readers = { address: (asked: Asked) => Read; mac: (asked: Asked) => Read };

/** Core's own readers, compiled for the page (the module `offline`). */
const MODULE = '/readers.js';
let loaded: Promise<Readers> | undefined;

function readers(): Promise<Readers> {
  loaded ??= (import(/* @vite-ignore */ MODULE) as Promise<Readers>).catch((error: unknown) => {
    loaded = undefined;
    throw error;
  });
  return loaded;
}

/** Reads on this device, by the same rules as the server, with what was given here today of the site. */
export async function readHere(what: keyof Readers, asked: Asked, endpointId?: number): Promise<Read> {
  const known = endpointId ? await onRecord(what, endpointId) : {};
  return { ...(await readers())[what]({ ...known, ...asked }), here: true };
}

async function onRecord(what: keyof Readers, endpointId: number): Promise<Asked> {
  try {
    const e = await ok(api.GET('/api/endpoints/{id}', { params: { path: { id: endpointId } } }));
    if (what === 'mac') return { expected: e.mac };
    const path = { siteId: e.siteId };
    const { segments } = await ok(api.GET('/api/sites/{siteId}/sheet', { params: { path } }));
    return { segment: segments.find((s) => s.id === e.segmentId) };
  } catch {
    return {}; // not taken along: it is read by itself
  }
}
