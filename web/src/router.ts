import { createRouter } from 'sv-router';
import Join from './features/account/Join.svelte';
import Work from './frame/Work.svelte';

export const STATIONS = ['plan', 'register', 'onboard', 'confirm'] as const;
export type StationPath = (typeof STATIONS)[number];

/** The sights of the plan beside the tape itself. */
export const PLAN_VIEWS = ['mend', 'series', 'wiring', 'sheet', 'intake', 'renumber', 'many'] as const;
export type PlanView = (typeof PLAN_VIEWS)[number];

/** The sights of the register beside its labels. */
export const REGISTER_VIEWS = ['registries', 'due', 'swaps', 'clean-up'] as const;
export type RegisterView = (typeof REGISTER_VIEWS)[number];

/** The sights of Onboard beside its board. */
export const ONBOARD_VIEWS = ['night', 'kinds'] as const;
export type OnboardView = (typeof ONBOARD_VIEWS)[number];
/** The sights of Confirm beside what waits there. */
export const CONFIRM_VIEWS = ['together', 'sweep'] as const;
export type ConfirmView = (typeof CONFIRM_VIEWS)[number];
export type Sight = PlanView | RegisterView | OnboardView | ConfirmView;

export const { navigate, route } = createRouter({
  '/': Work,
  '/join/:token': Join,
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

/** Goes to a path that was put together by {@link at}. */
export const go = (path: string) => navigate(path as '/');
