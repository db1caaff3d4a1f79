import { daysBetween, type Day } from './calendar.ts';
import type { RecheckDue } from './plan.ts';

/** How pressing a recheck is: what the one before it did not find held comes before any date; what a lead has held back waits. */
export type DueState = 'not-held' | 'overdue' | 'due' | 'coming' | 'waiting';

/** What a recheck came to. */
export type RecheckOutcome = 'held' | 'undecided' | 'out';

/** Days before its date from which a recheck counts as due. */
export const DUE_WITHIN_DAYS = 7;

/** Into how many parts the planned running is cut: in the last of them a recheck counts as due. */
export const DUE_IN_LAST_OF = 10;

/**
 * Says how near a recheck is, by the calendar and by the logged running, whichever is the more pressing.
 *
 * Waiting where a lead holds it back, whatever the date. Not held where the recheck before it found a point out, or left one undecided, until that is dealt with; overdue past either; due in the last seven days before the date, or the last tenth of the running or of the heat cycles; else coming.
 *
 * @param due when it is due
 * @param plannedAt the running figure when it was planned, or that with the heat cycles of then
 * @param after what the recheck before this one came to; null where there was none
 * @param now today, the last logged running figure and heat cycles
 * @example
 * dueState({ dueUsage: 110, dueDate: null }, 100, { day: '2030-01-01', usage: 109.5 }) // 'due'
 */
export function dueState(
  due: Pick<RecheckDue, 'dueUsage' | 'dueDate'> & Partial<Pick<RecheckDue, 'dueCycles'>>,
  plannedAt: number | { readonly usage: number; readonly cycles: number },
  now: { readonly day: Day; readonly usage: number; readonly cycles?: number },
  after: RecheckOutcome | null = null,
  onHold = false,
): DueState {
  const from = typeof plannedAt === 'number' ? { usage: plannedAt, cycles: 0 } : plannedAt;
  if (after !== null && after !== 'held') return 'not-held';
  const daysLeft = due.dueDate === null ? Infinity : daysBetween(now.day, due.dueDate);
  const usageLeft = due.dueUsage === null ? Infinity : due.dueUsage - now.usage;
  const dueCycles = due.dueCycles ?? null;
  const cyclesLeft = dueCycles === null ? Infinity : dueCycles - (now.cycles ?? 0);
  if (onHold) return 'waiting';
  if (daysLeft < 0 || usageLeft < 0 || cyclesLeft < 0) return 'overdue';
  // multiplied, not divided, and to the tenth that is kept: the database asks the same of whole figures
  const planned = due.dueUsage === null ? 0 : due.dueUsage - from.usage;
  const inLast = Math.round(usageLeft * 10) * DUE_IN_LAST_OF <= Math.round(planned * 10);
  const cyclesPlanned = dueCycles === null ? 0 : dueCycles - from.cycles;
  const inLastCycles = cyclesLeft * DUE_IN_LAST_OF <= cyclesPlanned;
  return daysLeft <= DUE_WITHIN_DAYS || inLast || inLastCycles ? 'due' : 'coming';
}
