import { clockTime, dayTime } from '../../ui/time';

/** When a check was seen, how and by whom; where it was measured is said only when that is another place than most. */
export const from = (
  r: { at?: string | null; by: string; evidenceWords: string; vantage: string; millis: number },
  here: string,
) =>
  !r.at
    ? undefined
    : r.vantage
      ? `${r.evidenceWords} ${clockTime(r.at)}, ${r.millis} ms${r.vantage === here ? '' : ', from ' + r.vantage}`
      : `${r.evidenceWords} by ${r.by}, ${dayTime(r.at)}`;
