import { nextCheckInWords, type NextCheck } from '@zero-lash/core/rechecks';
import { dayInWords } from '../app/dates.ts';

/** When a recheck is due, in words, its day as this page writes days: `by 1 Oct 2031, before the first frost, or at 350 hours`. */
export const dueInWords = (due: NextCheck, engine: Parameters<typeof nextCheckInWords>[1]): string =>
  nextCheckInWords(due, engine) ?? 'nothing makes it due';

/** The day it is expected on by how the engine is used, with its spread where there is one. */
export function expectedInWords({
  expectedDay,
  earliestDay,
  latestDay,
}: {
  readonly expectedDay: string | null;
  readonly earliestDay: string | null;
  readonly latestDay: string | null;
}): string {
  if (!expectedDay) return 'no day can be said yet: log its running';
  const spread =
    earliestDay && latestDay && earliestDay !== latestDay
      ? ` (${dayInWords(earliestDay)} to ${dayInWords(latestDay)})`
      : '';
  return `expected ${dayInWords(expectedDay)}${spread}`;
}
