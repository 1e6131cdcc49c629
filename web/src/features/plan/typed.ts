import type { Schemas } from '../../api/client';

/** A new endpoint as it is typed. */
export type TypedEndpoint = {
  name: string;
  address: string;
  mac: string;
  serial: string;
  place: string;
  outlet: string;
  port: string;
  partner: string;
  partnerAddress: string;
  hostName: string;
  method: Schemas['ProposalView']['method'];
  reason: string;
};
