import { daysBetween, type Day } from './calendar.ts';

/** The most that is run in a day: hours of it, and for the others more than any machine here does. */
const MOST_A_DAY = { hours: 24, km: 1500, miles: 930, starts: 300, events: 50, none: 0 } as const;

/** A running figure that looks like a slip, and what was likely meant. */
export interface RunningWarning {
  /** the figure with its decimal point one place on, where that is possible; null otherwise */
  readonly meant: number | null;
}

/**
 * Says whether a running figure is higher than can have been run since the last one: a decimal point left out, or a digit
 * too many. A warning never blocks: it asks.
 *
 * @param typed in the meter's own unit
 * @param last the figure logged before, and the day it was
 * @param today the day it is in the shop
 * @returns null where it can be
 * @example runningWarning(15300, { usage: 1522, on: '2031-01-01' }, '2031-01-11', 'hours') // { meant: 1530 }
 */
export function runningWarning(
  typed: number,
  last: { readonly usage: number; readonly on: Day },
  today: Day,
  unit: keyof typeof MOST_A_DAY,
): RunningWarning | null {
  // the day it was logged and today count whole
  const most = last.usage + MOST_A_DAY[unit] * (Math.max(0, daysBetween(last.on, today)) + 1);
  if (typed <= most) return null;
  const meant = Math.round(typed) / 10;
  return { meant: meant >= last.usage && meant <= most ? meant : null };
}
