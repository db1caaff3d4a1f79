import { onMeter } from '@zero-lash/core/rechecks';
import { dayInWords } from '../app/dates.ts';

/** A planned recheck, as far as when it is due goes. */
interface Due {
  readonly dueDate: string | null;
  readonly dueUsage: number | null;
  readonly dueCycles: number | null;
  readonly season: string;
}

/** What its engine's meter shows, and counts. */
interface Meter {
  readonly usage: number;
  readonly running: number;
  readonly usageUnit: string;
}

/**
 * When a recheck is due, in words: `by 1 Oct 2031, before the first frost, or at 350 hours`.
 */
export function dueInWords({ dueDate, dueUsage, dueCycles, season }: Due, engine: Meter): string {
  return [
    dueDate && `by ${dayInWords(dueDate)}${season ? `, before ${season}` : ''}`,
    dueUsage !== null && usageInWords(dueUsage, engine),
    dueCycles !== null && `at ${dueCycles} heat cycles`,
  ]
    .filter(Boolean)
    .join(' or ');
}

/** What the meter shows when a recheck is due; of one that came due on a meter it had before, how long it is over. */
function usageInWords(dueUsage: number, engine: Meter): string {
  const shown = onMeter(dueUsage, engine);
  if (shown >= 0) return `at ${shown} ${engine.usageUnit}`;
  return `${Math.round((engine.running - dueUsage) * 10) / 10} ${engine.usageUnit} ago`;
}

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
