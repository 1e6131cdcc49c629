import { api, ok, type Schemas } from './client';

type Purpose = Schemas['AddressReadRequest']['purpose'];

export const readAddress =
  (purpose: Purpose, context: { segmentId?: number; endpointId?: number; expected?: string } = {}) =>
  (text: string, signal: AbortSignal) =>
    ok(api.POST('/api/address/read', { body: { text, purpose, ...context }, signal }));

export const readMac = (siteId: number, endpointId?: number) => (text: string, signal: AbortSignal) =>
  ok(api.POST('/api/mac/read', { body: { text, siteId, endpointId }, signal }));

export const readSerial =
  (siteId: number, kind: string, endpointId?: number) => (text: string, signal: AbortSignal) =>
    ok(api.POST('/api/serial/read', { body: { text, siteId, kind, endpointId }, signal }));
