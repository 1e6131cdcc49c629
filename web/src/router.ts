import { createRouter } from 'sv-router';
import Join from './features/account/Join.svelte';
import NewPassword from './features/account/NewPassword.svelte';
import Work from './frame/Work.svelte';
import type { Sight, StationPath } from './place';

export * from './place';

export const { navigate, route } = createRouter({
  '/': Work,
  '/join/:token': Join,
  '/password/:token': NewPassword,
  '/today': Work,
  '/people': Work,
  '/practice': Work,
  '/t/:code': Work,
  // As matrix codes have it: capitals need half the modules.
  '/T/:code': Work,
  '/sites/:site': Work,
  '/sites/:site/:station': Work,
  '/sites/:site/:station/:endpoint': Work,
});

/** The address of a station, of one endpoint there, of the new endpoint, or of a sight of the station. */
export const at = (site: number, station: StationPath, endpoint?: number | 'new' | Sight) =>
  `/sites/${site}/${station}${endpoint ? '/' + endpoint : ''}`;

/** The address of a unit's line in a registry, or of the whole registry, where what is due there is settled. */
export const entryAt = (site: number, registry: number, endpoint: number | null) =>
  `${at(site, 'register', 'registries')}?registry=${registry}${endpoint ? `&unit=${endpoint}` : ''}`;

/** The address at which one looks back at a MAC, an address or a time. */
export const pastAt = (site: number, asked: { of?: string; at?: string }) =>
  `${at(site, 'audit', 'past')}?${new URLSearchParams(asked)}`;

/** The address at which one looks at what a change would touch. */
export const changeAt = (site: number, asked: { change: string; subject: string }) =>
  `${at(site, 'audit', 'change')}?${new URLSearchParams(asked)}`;

/** The address of a visit. */
export const visitAt = (site: number, visit: number) => `${at(site, 'onboard', 'visits')}?visit=${visit}`;

/** Goes to a path that was put together by {@link at}, with what stands behind its question mark. */
export function go(path: string) {
  const [where = '', asked] = path.split('?');
  return navigate(where as '/', { search: Object.fromEntries(new URLSearchParams(asked)) });
}
