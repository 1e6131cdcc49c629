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
