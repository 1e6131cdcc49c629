import { api, ok, Problem, type Schemas } from './client';
import { readHere, type Read } from './onDevice';

type Purpose = Schemas['AddressReadRequest']['purpose'];

/** Asks the server, which knows what is on record; where it cannot be reached, the device reads by itself. */
async function orHere(asked: Promise<Read>, here: () => Promise<Read>): Promise<Read> {
  try {
    return await asked;
  } catch (error) {
    if (error instanceof Problem && error.status === 0) return here();
    throw error;
  }
}

export const readAddress =
  (purpose: Purpose, context: { segmentId?: number; endpointId?: number; expected?: string } = {}) =>
  (text: string, signal: AbortSignal) =>
    orHere(ok(api.POST('/api/address/read', { body: { text, purpose, ...context }, signal })), () =>
      readHere('address', { text, purpose, expected: context.expected }, context.endpointId),
    );

export const readMac = (siteId: number, endpointId?: number) => (text: string, signal: AbortSignal) =>
  orHere(ok(api.POST('/api/mac/read', { body: { text, siteId, endpointId }, signal })), () =>
    readHere('mac', { text }, endpointId),
  );

export const readSerial =
  (siteId: number, kind: string, endpointId?: number) => (text: string, signal: AbortSignal) =>
    ok(api.POST('/api/serial/read', { body: { text, siteId, kind, endpointId }, signal }));
