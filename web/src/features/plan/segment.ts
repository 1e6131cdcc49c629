import type { Schemas } from '../../api/client';

type Segment = Schemas['SheetSegment'];

/** A segment as it is typed, numbers as texts. */
export const segmentTyped = (segment?: Segment) => ({
  name: segment?.name ?? '',
  prefix: segment?.prefix ?? '',
  gateway: segment?.gateway ?? '',
  first: segment?.resolvers[0] ?? '',
  second: segment?.resolvers[1] ?? '',
  pools: segment?.pools.length
    ? segment.pools.map((p) => ({ from: p.from ?? '', to: p.to ?? '' }))
    : [{ from: '', to: '' }],
  vlan: String(segment?.vlan ?? ''),
  leaseHours: String((segment?.leaseMinutes ?? 720) / 60),
  method: (segment?.method ?? 'FIXED') as Schemas['ProposalView']['method'],
  canReserve: segment?.canReserve ?? true,
  notes: segment?.notes ?? '',
  prefix6: segment?.prefix6 ?? '',
  gateway6: segment?.gateway6 ?? '',
  fixed6: segment?.fixed6 ?? false,
  series: '',
  hostBase: '',
  portBase: '',
});
export type TypedSegment = ReturnType<typeof segmentTyped>;

/** What is sent of it. */
export const segmentBody = (f: TypedSegment) => ({
  name: f.name,
  prefix: f.prefix,
  gateway: f.gateway,
  resolvers: [f.first, f.second].filter(Boolean),
  pools: f.pools.filter((p) => p.from || p.to),
  vlan: Number(f.vlan) || undefined,
  leaseMinutes: Math.round(Number(f.leaseHours) * 60) || undefined,
  method: f.method,
  canReserve: f.canReserve,
  notes: f.notes,
  prefix6: f.prefix6,
  gateway6: f.gateway6,
  fixed6: f.fixed6,
  seriesName: f.series,
  seriesHostBase: f.hostBase ? Number(f.hostBase) : undefined,
  seriesPortBase: f.portBase ? Number(f.portBase) : undefined,
});
