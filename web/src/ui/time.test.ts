import { afterEach, beforeAll, describe, expect, it } from 'vitest';
import { serverClock } from './now.svelte';
import { siteClock } from './siteClock.svelte';
import { clockTime, dayOf, dayTime, fullTime, minutes, shortName, timeOf, when } from './time';

const words = { ...siteClock };
beforeAll(() => serverClock.set('2026-12-31T12:00:00Z'));
afterEach(() => void Object.assign(siteClock, words));

describe('durations and times as people say them', () => {
  it.each([
    [0, '0 min'],
    [0.7, '42 s'],
    [1, '1 min'],
    [59.9, '59 min'],
    [65, '1 h 05 min'],
    [120, '2 h 00 min'],
    [-3, '0 min'],
  ])('%d minutes: %s', (total, said) => expect(minutes(total)).toBe(said));

  it.each([
    ['2026-07-01T22:30:00Z', 'Europe/Berlin', '00:30:00'],
    ['2026-01-01T22:30:00Z', 'Europe/Berlin', '23:30:00'],
    ['2026-01-01T22:30:00Z', 'Asia/Kolkata', '04:00:00'],
  ])('%s at %s is %s', (iso, zone, said) => {
    siteClock.zone = zone;
    expect(clockTime(iso)).toBe(said);
  });

  it('leaves the day out only when it is today at the site', () => {
    siteClock.zone = 'Europe/Berlin';
    const now = Date.parse('2026-03-10T23:30:00Z');
    expect(when('2026-03-10T23:10:00Z', now)).toBe('00:10');
    expect(when('2026-03-10T22:10:00Z', now)).toBe('10 Mar, 23:10');
  });

  it.each([
    ['dd.MM.yyyy', 'dd.MM.', 'HH:mm', '05.12.2026', '05.12., 00:05', '05.12.2026 00:05:09', '07:30'],
    ['MM/dd/yyyy', 'MM/dd', 'h:mm a', '12/05/2026', '12/05, 12:05 am', '12/05/2026 12:05:09 am', '7:30 am'],
    ['yyyy-MM-dd', 'MM-dd', 'HH:mm', '2026-12-05', '12-05, 00:05', '2026-12-05 00:05:09', '07:30'],
    ['d MMM yyyy', 'd MMM', 'HH:mm', '5 Dec 2026', '5 Dec, 00:05', '5 Dec 2026 00:05:09', '07:30'],
  ])('writes as %s', (day, brief, time, date, short, full, hour) => {
    Object.assign(siteClock, { zone: 'Europe/Berlin', day, brief, time });
    const iso = '2026-12-04T23:05:09Z';
    expect([dayOf('2026-12-05'), dayTime(iso), fullTime(Date.parse(iso)), timeOf('07:30:00')]).toEqual([
      date,
      short,
      full,
      hour,
    ]);
  });

  it('says the year only where it is another one than now at the site', () => {
    siteClock.zone = 'Europe/Berlin';
    expect(dayTime('2026-01-01T00:00:00Z')).toBe('1 Jan, 01:00');
    expect(dayTime('2024-12-01T00:00:00Z')).toBe('1 Dec 2024, 01:00');
    expect(dayTime('2026-12-31T23:30:00Z')).toBe('1 Jan 2027, 00:30');
  });

  it('shortens a family name', () => expect(shortName('Imke Rasmund')).toBe('Imke R.'));
  it('does not take itself for a person', () =>
    expect(shortName('Knot Tag at night')).toBe('Knot Tag at night'));
});
