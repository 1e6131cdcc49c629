import type { Schemas } from '../api/client';

/** The site that is looked at: its zone, and the patterns by which a lead chose to write days and times there. */
export const siteClock = $state({
  id: 0,
  zone: 'UTC',
  offset: 'Z',
  day: 'd MMM yyyy',
  brief: 'd MMM',
  time: 'HH:mm',
});

export function setSiteClock(site: Schemas['SiteView']) {
  const { day, brief, time } = site.dates;
  Object.assign(siteClock, { id: site.id, zone: site.zone, offset: site.zoneNow, day, brief, time });
}
