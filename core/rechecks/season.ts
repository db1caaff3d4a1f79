import { addDays, type Day } from './calendar.ts';

const LEAP = 2000;

/**
 * Says whether a text is a day of some year, `MM-DD`; 29 February is one.
 *
 * @example isDayOfYear('10-01') // true
 */
export function isDayOfYear(text: string): boolean {
  const [, month, date] = /^(\d{2})-(\d{2})$/.exec(text) ?? [];
  if (month === undefined) return false;
  const day = new Date(Date.UTC(LEAP, Number(month) - 1, Number(date)));
  return day.getUTCMonth() === Number(month) - 1 && day.getUTCDate() === Number(date);
}

/**
 * Finds the next time a day of the year comes after a day; on that day itself, next year's.
 *
 * Rule: 29 February is the 28th in common years.
 *
 * @example nextOf('10-01', '2030-10-01') // '2031-10-01'
 */
export function nextOf(dayOfYear: string, after: Day): Day {
  const year = Number(after.slice(0, 4));
  const inYear = (one: number) => {
    const leap = new Date(Date.UTC(one, 1, 29)).getUTCMonth() === 1;
    return `${String(one).padStart(4, '0')}-${dayOfYear === '02-29' && !leap ? '02-28' : dayOfYear}`;
  };
  return [inYear(year), inYear(year + 1)].find((day) => day > after)!;
}

/** A season of one year or of two: its first day, and its last where somebody said. */
export interface Season {
  readonly from: Day;
  readonly until: Day | null;
}

/**
 * Finds the next season that a recheck comes before.
 *
 * Rule: it ends on the first of its last days that comes after its first; a season that ends on the day it begins is of one day.
 *
 * @returns null where no season is named
 * @example seasonAfter({ before: '10-01', until: '03-31' }, '2030-05-01') // { from: '2030-10-01', until: '2031-03-31' }
 */
export function seasonAfter(
  {
    before,
    until,
  }: { readonly before?: string | null | undefined; readonly until?: string | null | undefined },
  after: Day,
): Season | null {
  if (!before) return null;
  const from = nextOf(before, after);
  return { from, until: until ? nextOf(until, addDays(from, -1)) : null };
}
