import type { NewReading, ReadingRow } from '@zero-lash/contract/measuring';
import { mmFromTenths } from '@zero-lash/core/length';
import { intervalOf, judge, limitsFromMm, type Reading } from '@zero-lash/core/measuring';
import type { Pattern } from '@zero-lash/core/sheets';
import { mayMeasurePoint } from '@zero-lash/core/turning';
import type { OutboxItem } from '../app/outboxItem.ts';

/**
 * A pending reading, as the server will keep it: judged by the same core.
 *
 * @param limits mm; null where its sheet has none yet
 * @param before what stood at the point
 */
export function readingHere(
  { key, by, within, takenAt }: Pick<OutboxItem, 'key' | 'by' | 'within' | 'takenAt'>,
  taken: NewReading,
  limits: { readonly min: number; readonly max: number; readonly allowOver?: number } | null,
  pattern: Pattern,
  before: ReadingRow | undefined,
): ReadingRow {
  const reading = taken.reading as Reading;
  // what a hollow makes of it is judged with all the others
  const interval = intervalOf(reading);
  const angle = taken.crankAngle ?? null;
  return {
    id: key,
    roundId: within!,
    point: taken.point,
    reading: reading as never,
    asTyped: taken.asTyped,
    lo: mmFromTenths(interval.lo),
    hi: interval.hi === null ? null : mmFromTenths(interval.hi),
    floor: interval.floor,
    limits: limits && { min: limits.min, max: limits.max, allowOver: limits.allowOver ?? 0 },
    narrowBlade: taken.narrowBlade ?? false,
    ...judge(interval, limits && limitsFromMm(limits)),
    doubtKept: taken.doubtKept ?? false,
    crankAngle: angle,
    offBase: angle !== null && !mayMeasurePoint(pattern, taken.point, angle),
    instrument: null,
    takenAt,
    blind: taken.blind ?? false,
    beforeLock: taken.beforeLock ?? false,
    firstLook: taken.blind ? firstLookOf(before) : null,
    by,
    at: takenAt,
    supersedes: before?.id ?? null,
    reason: taken.reason ?? '',
    superseded: false,
    crosses: null,
    crossed: null,
    earlier: before ? before.earlier + 1 : 0,
  };
}

/** What a blind look is held against: what was found by whoever saw, however many looked blind since. */
function firstLookOf(before: ReadingRow | undefined): ReadingRow['firstLook'] {
  if (!before) return null;
  const { by, lo, hi, floor } = before;
  return before.blind ? before.firstLook : { by, lo, hi, floor };
}
