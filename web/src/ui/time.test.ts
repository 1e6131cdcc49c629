import { describe, expect, it } from 'vitest';
import { clockTime, minutes, shortName, when } from './time';

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
  ])('%s at %s is %s', (iso, zone, said) => expect(clockTime(iso, zone)).toBe(said));

  it('leaves the day out only when it is today at the site', () => {
    const now = Date.parse('2026-03-10T23:30:00Z');
    expect(when('2026-03-10T23:10:00Z', 'Europe/Berlin', now)).toBe('00:10');
    expect(when('2026-03-10T22:10:00Z', 'Europe/Berlin', now)).toBe('10 Mar, 23:10');
  });

  it('shortens a family name', () => expect(shortName('Imke Rasmund')).toBe('Imke R.'));
});
