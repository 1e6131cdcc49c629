import type { Schemas } from '../../api/client';
import { at } from '../../router';

/** Where what differs is settled, as far as it is an endpoint of ours. */
export function settledAt(siteId: number, f: Schemas['FindingView']) {
  if (!f.endpointId) return [];
  const check = { href: at(siteId, 'confirm', f.endpointId), words: 'Check it' };
  switch (f.standing) {
    case 'OTHER_INTERFACE':
      return [{ href: at(siteId, 'register', f.endpointId), words: 'To its MACs' }];
    case 'AUTOMATIC':
    case 'MOVED':
      return [];
    case 'SILENT':
      return [check, { href: at(siteId, 'register', f.endpointId), words: 'It was replaced' }];
    default:
      return [check];
  }
}

const LINKS = { UP: 'Up', DOWN: 'Dark', SWITCHED_OFF: 'Switched off', UNKNOWN: '' };

/** What a port tells of its link. */
export function linkWords(p: Schemas['PortLineView']) {
  if (!p.told) return 'Nothing told';
  const speed = p.megabits >= 1000 ? `${p.megabits / 1000} Gbit/s` : p.megabits ? `${p.megabits} Mbit/s` : '';
  const power = p.power === 'FEEDING' ? ', feeds power' : '';
  return (p.link === 'UP' && speed ? speed : LINKS[p.link]) + power;
}
