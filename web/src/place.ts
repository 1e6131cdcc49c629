import type { Schemas } from './api/client';

export const STATIONS = ['plan', 'register', 'onboard', 'confirm', 'handover', 'audit'] as const;
export type StationPath = (typeof STATIONS)[number];
/** Stations where endpoints wait; at Audit nothing waits. */
export const WAITING_AT = STATIONS.filter((s) => s !== 'audit');
export const STATION_NAMES: Record<StationPath, string> = {
  plan: 'Plan',
  register: 'Register',
  onboard: 'Onboard',
  confirm: 'Confirm',
  handover: 'Hand over',
  audit: 'Audit',
};

/** The sights of the plan beside the tape itself. */
export const PLAN_VIEWS = ['mend', 'series', 'wiring', 'sheet', 'intake', 'renumber', 'many'] as const;
export type PlanView = (typeof PLAN_VIEWS)[number];

/** The sights of the register beside its labels. */
export const REGISTER_VIEWS = ['registries', 'due', 'swaps', 'clean-up'] as const;
export type RegisterView = (typeof REGISTER_VIEWS)[number];

/** The sights of Onboard beside its board. */
export const ONBOARD_VIEWS = ['visits', 'worksheets', 'night', 'kinds'] as const;
export type OnboardView = (typeof ONBOARD_VIEWS)[number];
/** The sights of Confirm beside what waits there. */
export const CONFIRM_VIEWS = ['together', 'sweep'] as const;
export type ConfirmView = (typeof CONFIRM_VIEWS)[number];
/** The sights of Hand over beside what is left to do. */
export const HANDOVER_VIEWS = ['tags', 'openings', 'packed', 'packs', 'logbook'] as const;
export type HandoverView = (typeof HANDOVER_VIEWS)[number];
/** The sights of Audit beside what differs. */
export const AUDIT_VIEWS = ['known', 'gear', 'recheck', 'firmware', 'nights', 'past', 'change'] as const;
export type AuditView = (typeof AUDIT_VIEWS)[number];
export type Sight = PlanView | RegisterView | OnboardView | ConfirmView | HandoverView | AuditView;

interface Views {
  plan: PlanView;
  register: RegisterView;
  onboard: OnboardView;
  confirm: ConfirmView;
  handover: HandoverView;
  audit: AuditView;
}
/** At one endpoint of a station (0 for none), or at a sight of it. */
type PlaceAt<S extends StationPath> = { station: S; endpoint: number } | { station: S; view: Views[S] };
/** Where somebody is at a site; a new endpoint is planned. */
export type Place =
  | PlaceAt<'plan'>
  | { station: 'plan'; isNew: true }
  | PlaceAt<'register'>
  | PlaceAt<'onboard'>
  | PlaceAt<'confirm'>
  | PlaceAt<'handover'>
  | PlaceAt<'audit'>;
export type PlaceOf<S extends StationPath> = Extract<Place, { station: S }>;

function placeAt<S extends StationPath>(station: S, views: readonly Views[S][], word: string): PlaceAt<S> {
  const view = views.find((v) => v === word);
  return view ? { station, view } : { station, endpoint: Number(word) || 0 };
}

/** Reads where somebody is from the last two parts of the address; what is no such place is the station itself, or the plan. */
export function placeOf(station = '', word = ''): Place {
  switch (station) {
    case 'register':
      return placeAt(station, REGISTER_VIEWS, word);
    case 'onboard':
      return placeAt(station, ONBOARD_VIEWS, word);
    case 'confirm':
      return placeAt(station, CONFIRM_VIEWS, word);
    case 'handover':
      return placeAt(station, HANDOVER_VIEWS, word);
    case 'audit':
      return placeAt(station, AUDIT_VIEWS, word);
    default:
      if (station === 'plan' && word === 'new') return { station, isNew: true };
      return placeAt('plan', PLAN_VIEWS, station === 'plan' ? word : '');
  }
}

/** What every station is given to show. */
export interface AtStation<S extends StationPath> {
  siteId: number;
  place: PlaceOf<S>;
  endpoint?: { data: Schemas['EndpointView']; etag: string };
  mayWork: boolean;
}
