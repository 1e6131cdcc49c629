import type { Schemas } from '../../api/client';
import { at } from '../../router';

type What = Schemas['ActView']['what'];

/** Where an act is settled. */
export function whereTo(siteId: number, what: What, endpoint: number): string {
  switch (what) {
    case 'ADDRESS':
      return at(siteId, 'plan', endpoint);
    case 'REGISTER':
      return at(siteId, 'register', endpoint);
    case 'SET_UP':
    case 'OPENING':
      return at(siteId, 'onboard', endpoint);
    case 'PROVE':
    case 'PROVE_AGAIN':
    case 'OFFICE':
      return at(siteId, 'confirm', endpoint);
    default:
      return `${at(siteId, 'handover', 'tags')}?of=${endpoint}`;
  }
}

/** How a tag stands, in words. */
export const TAG: Record<Schemas['ReadyView']['tag'], string> = {
  HANGS_WRONG: 'its tag says what is no longer so',
  NOT_PRINTED: 'no tag printed',
  TO_HANG: 'tag printed, not hung yet',
  HANGS: 'tag hangs',
};
