import { counted } from '../length/index.ts';
import { dayInWords } from './calendar.ts';
import { onMeter, type Metered } from './onMeter.ts';

/** A planned recheck, as far as when it is due goes. */
export interface NextCheck {
  readonly dueDate: string | null;
  /** running in all, over every meter */
  readonly dueUsage: number | null;
  readonly dueCycles?: number | null | undefined;
  readonly season?: string | undefined;
}

/**
 * Says when the next check is due: the same on the page, the owner's sheet, in the letter and in the calendar. Running is said as
 * the meter will show it, which may have been changed since; one that came due on an earlier meter says how long ago.
 *
 * @returns null where nothing makes it due
 * @example nextCheckInWords({ dueDate: '2031-03-01', dueUsage: 150 }, { usage: 20, running: 120, usageUnit: 'hours' })
 * // 'by 1 Mar 2031 or at 50 hours, whichever is first'
 */
export function nextCheckInWords(
  due: NextCheck,
  engine: Metered & { readonly usageUnit: string },
): string | null {
  const ways = [
    due.dueDate && `by ${dayInWords(due.dueDate)}${due.season ? `, before ${due.season}` : ''}`,
    due.dueUsage !== null && usageInWords(due.dueUsage, engine),
    due.dueCycles ? `at ${counted(due.dueCycles, 'heat cycle')}` : null,
  ].filter((way): way is string => Boolean(way));
  if (ways.length === 0) return null;
  return `${ways.join(' or ')}${ways.length > 1 ? ', whichever is first' : ''}`;
}

/** What the meter shows when a check is due; of one that came due on a meter it had before, how long it is over. */
function usageInWords(dueUsage: number, engine: Metered & { readonly usageUnit: string }): string {
  const shown = onMeter(dueUsage, engine);
  if (shown >= 0) return `at ${shown} ${engine.usageUnit}`;
  return `${Math.round((engine.running - dueUsage) * 10) / 10} ${engine.usageUnit} ago`;
}

/**
 * Says how an engine is to come to be measured: what stands in a letter and on a sheet follows what its figures hold for.
 *
 * @example comesInWords('cold') // 'It is measured cold: leave it overnight before it comes.'
 */
export function comesInWords(condition: 'cold' | 'hot'): string {
  return condition === 'cold'
    ? 'It is measured cold: leave it overnight before it comes.'
    : 'It is measured hot, as its maker says: it is run up to heat for it on our bench.';
}
