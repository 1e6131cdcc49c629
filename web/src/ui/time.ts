import { untrack } from 'svelte';
import { serverClock } from './now.svelte';
import { siteClock } from './siteClock.svelte';

/** Minutes as people say them: "40 s", "45 min", "1 h 05 min". */
export function minutes(total: number): string {
  const whole = Math.max(0, Math.floor(total));
  if (total > 0 && total < 1) return Math.floor(total * 60) + ' s';
  return whole < 60
    ? whole + ' min'
    : Math.floor(whole / 60) + ' h ' + String(whole % 60).padStart(2, '0') + ' min';
}

/** A moment by a pattern of the site's (Unicode, UTS 35), wherever the browser stands. */
function written(pattern: string, at: Date, zone: string): string {
  const part = (options: Intl.DateTimeFormatOptions) =>
    new Intl.DateTimeFormat('en-US', { ...options, hourCycle: 'h23', timeZone: zone }).format(at);
  const two = (text: string) => text.padStart(2, '0');
  const hour = () => Number(part({ hour: 'numeric' }));
  const letters: Record<string, () => string> = {
    yyyy: () => part({ year: 'numeric' }).padStart(4, '0'),
    MMM: () => part({ month: 'short' }),
    MM: () => two(part({ month: 'numeric' })),
    dd: () => two(part({ day: 'numeric' })),
    d: () => part({ day: 'numeric' }),
    HH: () => two(String(hour())),
    h: () => String(hour() % 12 || 12),
    mm: () => two(part({ minute: 'numeric' })),
    ss: () => two(part({ second: 'numeric' })),
    a: () => (hour() < 12 ? 'am' : 'pm'),
  };
  return pattern.replace(/yyyy|MMM|MM|dd|d|HH|h|mm|ss|a/g, (l) => letters[l]?.() ?? l);
}

const exact = () => siteClock.time.replace('mm', 'mm:ss');

/** Time of day at the site, to the second. */
export const clockTime = (iso: string) => written(exact(), new Date(iso), siteClock.zone);

/** Day and time at the site to the second, to hold beside a device's own. */
export const fullTime = (millis: number) =>
  written(siteClock.day, new Date(millis), siteClock.zone) + ' ' + clockTime(new Date(millis).toISOString());

/** Time of day at the site, with the day when it is not today. */
export function when(iso: string, nowMillis: number): string {
  const day = (at: Date) => written('yyyy-MM-dd', at, siteClock.zone);
  const at = new Date(iso);
  return day(at) === day(new Date(nowMillis)) ? written(siteClock.time, at, siteClock.zone) : dayTime(iso);
}

/** A person as colleagues say it: "Imke R."; whatever Knot Tag did by itself keeps its words. */
export const shortName = (name: string) =>
  name.startsWith('Knot Tag ')
    ? name
    : name
        .split(' ')
        .map((word, i) => (i === 0 ? word : word[0] + '.'))
        .join(' ');

/** The day as people say it: with its year only where that is another one than now. */
function brief(iso: string, zone: string): string {
  const year = (at: Date) => written('yyyy', at, zone);
  // Nothing is shown anew each second because the years are compared.
  const now = untrack(() => serverClock.millis);
  return year(new Date(iso)) === year(new Date(now)) ? siteClock.brief : siteClock.day;
}

/** Day and time at the site. */
export const dayTime = (iso: string) => dayTimeIn(iso, siteClock.zone);

/** Day and time by another site's clock. */
export const dayTimeIn = (iso: string, zone: string) =>
  written(brief(iso, zone) + ', ' + siteClock.time, new Date(iso), zone);

/** Day and time at the site as they are typed. */
export const typedMoment = (iso: string) =>
  written(siteClock.day + ', ' + siteClock.time, new Date(iso), siteClock.zone);

/** The day of a moment at the site, with its year. */
export const dayAt = (iso: string) => written(siteClock.day, new Date(iso), siteClock.zone);

/** Time of day at the site. */
export const hourOf = (iso: string) => written(siteClock.time, new Date(iso), siteClock.zone);

/** A day, given as 2031-11-25, as the site writes it. */
export const dayOf = (date: string) =>
  /^\d{4}-\d\d-\d\d/.test(date) ? written(siteClock.day, new Date(date), 'UTC') : date;

/** A time of day, given as 14:05, as the site writes it. */
export const timeOf = (time: string) =>
  written(siteClock.time, new Date(`2000-01-01T${time.slice(0, 5)}Z`), 'UTC');
