<script lang="ts" module>
  import type { Schemas } from '../../api/client';

  /** What of the sheet is being changed or shown. */
  export type Open =
    | { what: 'site' }
    | { what: 'dates' }
    | { what: 'rules' }
    | { what: 'trust' }
    | { what: 'segment'; row?: Schemas['SheetSegment'] }
    | { what: 'gear'; row?: Schemas['GearView'] }
    | { what: 'outlet'; row?: Schemas['OutletRow'] }
    | { what: 'service'; row?: Schemas['ServiceRow'] }
    | { what: 'place'; row?: Schemas['PlaceRow'] };
</script>

<script lang="ts">
  import Dialog from '../../ui/Dialog.svelte';
  import type { SheetAnswer } from '../../ui/sheetChange.svelte';
  import DatesForm from './DatesForm.svelte';
  import FirewallRules from './FirewallRules.svelte';
  import GearForm from './GearForm.svelte';
  import OutletForm from './OutletForm.svelte';
  import PlaceForm from './PlaceForm.svelte';
  import SegmentForm from './SegmentForm.svelte';
  import ServiceForm from './ServiceForm.svelte';
  import SiteForm from './SiteForm.svelte';
  import TrustedRange from './TrustedRange.svelte';

  let {
    open = $bindable(),
    chosen,
    siteId,
    sheet,
  }: { open: boolean; chosen: Open | null; siteId: number; sheet: SheetAnswer } = $props();
  const done = () => (open = false);
  const TITLES = {
    site: 'The site',
    dates: 'Days and times',
    rules: 'Firewall rules to hand over',
    trust: 'Shrink a trusted range',
    segment: 'Segment',
    gear: 'Router, switch or access point',
    outlet: 'Outlet',
    service: 'Service that the site calls',
    place: 'Place',
  };
  /** As it stands now; what somebody took off the sheet meanwhile stays open as it was. */
  const fresh = <T extends { id: number }>(all: T[], row?: T) =>
    row && (all.find((r) => r.id === row.id) ?? row);
  const segmentName = (id: number | null) => sheet.data.segments.find((s) => s.id === id)?.name ?? '';
</script>

<Dialog bind:open title={chosen ? TITLES[chosen.what] : ''} wide>
  {#if chosen?.what === 'site'}<SiteForm {sheet} {done} />
  {:else if chosen?.what === 'dates'}<DatesForm {sheet} {done} />
  {:else if chosen?.what === 'segment'}<SegmentForm
      {siteId}
      segment={fresh(sheet.data.segments, chosen.row)}
      etag={sheet.etag}
      {done}
    />
  {:else if chosen?.what === 'gear'}<GearForm
      {sheet}
      row={fresh(sheet.data.gear, chosen.row)}
      {segmentName}
      {done}
    />
  {:else if chosen?.what === 'outlet'}<OutletForm
      {sheet}
      row={fresh(sheet.data.outlets, chosen.row)}
      {done}
    />
  {:else if chosen?.what === 'service'}<ServiceForm
      {sheet}
      row={fresh(sheet.data.services, chosen.row)}
      {done}
    />
  {:else if chosen?.what === 'place'}<PlaceForm {sheet} row={fresh(sheet.data.places, chosen.row)} {done} />
  {:else if chosen?.what === 'trust'}<TrustedRange {siteId} segments={sheet.data.segments} />
  {:else if chosen?.what === 'rules'}<FirewallRules {siteId} />{/if}
</Dialog>
