import type { Schemas } from '../../api/client';
import { at } from '../../router';

/** Where what differs is settled, as far as it is an endpoint of ours. */
export function settledAt(siteId: number, f: Schemas['FindingView']) {
  if (!f.endpointId) return undefined;
  switch (f.standing) {
    case 'OTHER_INTERFACE':
      return { href: at(siteId, 'register', f.endpointId), words: 'To its MACs' };
    case 'AUTOMATIC':
    case 'MOVED':
      return { href: at(siteId, 'onboard', f.endpointId), words: 'To its type sheet' };
    default:
      return { href: at(siteId, 'confirm', f.endpointId), words: 'Check it' };
  }
}
