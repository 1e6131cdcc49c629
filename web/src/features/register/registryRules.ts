import type { Schemas } from '../../api/client';

/** The rules of a registry as they are typed, numbers as texts. */
export const rulesOf = (r: Schemas['Rules']) => ({
  naming: r.naming,
  longestName: String(r.longestName),
  ownerNeeded: r.ownerNeeded,
  sharing: r.sharing,
  most: r.most ? String(r.most) : '',
  lifetimeUnit: r.lifetime?.unit ?? ('' as const),
  lifetime: r.lifetime ? String(r.lifetime.amount) : '',
  restart: r.restart,
  facts: [...r.facts],
  models: r.models.join(', '),
  waitsFor: r.waitsFor,
  leadDays: r.leadDays ? String(r.leadDays) : '',
  form: r.form,
});
export type TypedRules = ReturnType<typeof rulesOf>;
