/** A day of the calendar, `yyyy-mm-dd`, without a time or a zone. */
export type Day = string;

const MS_PER_DAY = 86_400_000;

/**
 * Counts days onto a day.
 *
 * @example addDays('2030-02-27', 3) // '2030-03-02'
 */
export function addDays(day: Day, days: number): Day {
  return new Date(Date.parse(`${day}T00:00:00Z`) + days * MS_PER_DAY).toISOString().slice(0, 10);
}

/**
 * Counts the days from one day to a later one; negative where it is earlier.
 *
 * @example daysBetween('2030-01-01', '2030-01-08') // 7
 */
export function daysBetween(from: Day, to: Day): number {
  return Math.round((Date.parse(`${to}T00:00:00Z`) - Date.parse(`${from}T00:00:00Z`)) / MS_PER_DAY);
}

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'] as const;

/**
 * Writes a day as it is said, on every page and paper.
 *
 * @example dayInWords('2030-02-05') // '5 Feb 2030'
 */
export function dayInWords(day: Day): string {
  const [year, month, date] = day.split('-').map(Number);
  return `${date} ${MONTHS[month! - 1]} ${year}`;
}
