/** Minutes as people say them: "40 s", "45 min", "1 h 05 min". */
export function minutes(total: number): string {
  const whole = Math.max(0, Math.floor(total));
  if (total > 0 && total < 1) return Math.floor(total * 60) + ' s';
  return whole < 60
    ? whole + ' min'
    : Math.floor(whole / 60) + ' h ' + String(whole % 60).padStart(2, '0') + ' min';
}

/** Time of day at the site. */
export function clockTime(iso: string, zone: string): string {
  return new Intl.DateTimeFormat('en-GB', {
    hour: '2-digit',
    minute: '2-digit',
    second: '2-digit',
    timeZone: zone,
  }).format(new Date(iso));
}

/** Time of day at the site, with the day when it is not today. */
export function when(iso: string, zone: string, nowMillis: number): string {
  const day = (millis: number) =>
    new Intl.DateTimeFormat('en-GB', { dateStyle: 'short', timeZone: zone }).format(millis);
  return day(Date.parse(iso)) === day(nowMillis) ? clockTime(iso, zone).slice(0, 5) : dayTime(iso, zone);
}

/** A person as colleagues say it: "Imke R." */
export const shortName = (name: string) =>
  name
    .split(' ')
    .map((word, i) => (i === 0 ? word : word[0] + '.'))
    .join(' ');

/** Day and time at the site. */
export function dayTime(iso: string, zone: string): string {
  return new Intl.DateTimeFormat('en-GB', {
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit',
    timeZone: zone,
  }).format(new Date(iso));
}

/** A day as people write it: "25 Nov 2031". */
export const dayOf = (date: string) =>
  new Intl.DateTimeFormat('en-GB', {
    day: 'numeric',
    month: 'short',
    year: 'numeric',
    timeZone: 'UTC',
  }).format(new Date(date));
