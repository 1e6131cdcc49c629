import { queryOptions } from '@tanstack/svelte-query';
import { api, ok, type Schemas } from '../../api/client';

export const peopleQuery = queryOptions({
  queryKey: ['people'],
  queryFn: ({ signal }) => ok(api.GET('/api/people', { signal })),
});
export const linksQuery = queryOptions({
  queryKey: ['people', 'links'],
  queryFn: ({ signal }) => ok(api.GET('/api/invitations', { signal })),
});
export const signInsQuery = queryOptions({
  queryKey: ['people', 'sign-ins'],
  queryFn: ({ signal }) => ok(api.GET('/api/sign-ins', { params: { query: {} }, signal })),
});
export const ownSessionsQuery = queryOptions({
  queryKey: ['own-sessions'],
  queryFn: ({ signal }) => ok(api.GET('/api/me/sessions', { signal })),
});
export const passkeysQuery = queryOptions({
  queryKey: ['passkeys'],
  queryFn: ({ signal }) => ok(api.GET('/api/me/passkeys', { signal })),
});

export type Role = Schemas['PersonListed']['role'];
export const ROLES: { role: Role; does: string }[] = [
  { role: 'TECHNICIAN', does: 'Technician: does the work' },
  { role: 'OFFICE', does: 'Office: looks on' },
  { role: 'LEAD', does: 'Lead: also sites and people' },
];
/** People have no site: their times are those of whoever reads them. */
export const HERE = new Intl.DateTimeFormat().resolvedOptions().timeZone;
