import { api, okWithTag, type Schemas } from '../../api/client';

/** Changes a runbook from the version that was seen. */
export type Call = (header: {
  'If-Match': string;
}) => Promise<{ data: Schemas['RunbookView']; etag: string }>;

/** What can be done at the runbook of an endpoint. */
export const runbookCalls = (id: number) => ({
  step:
    (key: string, body: Schemas['StepRequest']): Call =>
    (header) =>
      okWithTag(
        api.PUT('/api/endpoints/{id}/runbook/steps/{key}', { params: { path: { id, key }, header }, body }),
      ),
  facts:
    (facts: Record<string, string>): Call =>
    (header) =>
      okWithTag(
        api.PUT('/api/endpoints/{id}/runbook/facts', { params: { path: { id }, header }, body: { facts } }),
      ),
  opening:
    (key: string, body: Schemas['OpeningRequest']): Call =>
    (header) =>
      okWithTag(
        api.PUT('/api/endpoints/{id}/runbook/openings/{key}', {
          params: { path: { id, key }, header },
          body,
        }),
      ),
  reset:
    (why: string, backup: string): Call =>
    (header) =>
      okWithTag(
        api.POST('/api/endpoints/{id}/runbook/reset', {
          params: { path: { id }, header },
          body: { why, backup },
        }),
      ),
  latest: (): Call => (header) =>
    okWithTag(api.POST('/api/endpoints/{id}/runbook/latest', { params: { path: { id }, header } })),
});
