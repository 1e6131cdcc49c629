import type { Schemas } from '../../api/client';
import { at, visitAt, type StationPath } from '../../router';
import { minutes } from '../../ui/time';

type Notice = Schemas['NoticeView'];

const path = (station: Notice['station']) => station.toLowerCase() as StationPath;

/** Where a notice is settled. */
export function whereTo(n: Notice): string {
  switch (n.what) {
    case 'VISIT_RUNS':
    case 'VISIT_LATE':
    case 'VISIT_AHEAD':
      return visitAt(n.siteId, n.aboutId ?? 0);
    case 'DUE':
      if (n.station === 'HANDOVER') return at(n.siteId, 'handover', 'openings');
      return at(n.siteId, 'register', 'due');
    case 'CUT_OFF':
      return at(n.siteId, 'register', 'due');
    case 'NIGHT':
      return at(n.siteId, 'audit', 'nights');
    default:
      return at(n.siteId, path(n.station), n.aboutId ?? undefined);
  }
}

/** How long ago that was, in one measure; nothing when it was just now. */
export function ago(total: number): string {
  if (total < 1) return '';
  if (total < 1440) return minutes(total);
  return total < 2880 ? '1 day' : `${Math.floor(total / 1440)} days`;
}

/** What can be done about it there, on a button. */
export const DO: Record<Notice['what'], string> = {
  TOO_LONG: 'Go and look',
  READY: 'Go and look',
  VISIT_RUNS: 'To the visit',
  VISIT_LATE: 'To the visit',
  CUT_OFF: 'To what is due',
  DUE: 'To what is due',
  BROKEN: 'Find the cause',
  NIGHT: 'To the night',
  RUNS: 'To its runbook',
  VISIT_AHEAD: 'To the visit',
};
