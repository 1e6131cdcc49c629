import type { Schemas } from '../../api/client';

/** Who keeps an address, as it stands on the tag. */
export const METHODS: Record<Schemas['ProposalView']['method'], string> = {
  FIXED: 'fixed on the device',
  RESERVED: 'reserved by MAC at the DHCP server',
  LEARNED: 'learned, then fixed on the device',
  AUTOMATIC: 'automatic',
};
