import { daysBetween, type Day } from './calendar.ts';
import type { RecheckDue } from './plan.ts';

/** How pressing a recheck is: what the one before it did not find held comes before any date. */
export type DueState = 'not-held' | 'overdue' | 'due' | 'coming';

/** What a recheck came to. */
export type RecheckOutcome = 'held' | 'undecided' | 'out';

/** Days before its date from which a recheck counts as due. */
export const DUE_WITHIN_DAYS = 7;

/** Into how many parts the planned running is cut: in the last of them a recheck counts as due. */
export const DUE_IN_LAST_OF = 10;

/**
 * Says how near a recheck is, by the calendar and by the logged running, whichever is the more pressing.
 *
 * Not held where the recheck before it found a point out, or left one undecided, until that is dealt with; overdue past either; due in the last seven days before the date, or the last tenth of the running; else coming.
 *
 * @param due when it is due
 * @param plannedAt the running figure when it was planned
 * @param after what the recheck before this one came to; null where there was none
 * @param now today and the last logged running figure
 * @example
 * dueState({ dueUsage: 110, dueDate: null }, 100, { day: '2030-01-01', usage: 109.5 }) // 'due'
 */
export function dueState(
  due: RecheckDue,
  plannedAt: number,
  now: { readonly day: Day; readonly usage: number },
  after: RecheckOutcome | null = null,
): DueState {
  if (after !== null && after !== 'held') return 'not-held';
  const daysLeft = due.dueDate === null ? Infinity : daysBetween(now.day, due.dueDate);
  const usageLeft = due.dueUsage === null ? Infinity : due.dueUsage - now.usage;
  if (daysLeft < 0 || usageLeft < 0) return 'overdue';
  // multiplied, not divided, and to the tenth that is kept: the database asks the same of whole figures
  const planned = due.dueUsage === null ? 0 : due.dueUsage - plannedAt;
  const inLast = Math.round(usageLeft * 10) * DUE_IN_LAST_OF <= Math.round(planned * 10);
  return daysLeft <= DUE_WITHIN_DAYS || inLast ? 'due' : 'coming';
}
