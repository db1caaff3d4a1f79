import { tenthsFromMm } from '../length/index.ts';
import type { Interval } from './interval.ts';
import type { Limits, Verdict } from './judge.ts';

/** Why a point is looked at before it is set. */
export type LookFirst = 'far-out' | 'moving-fast';

/** A gap of which both ends are known, in mm. */
interface KnownBefore {
  readonly lo: number;
  readonly hi: number | null;
}

/** Out by more than this, and by more than its band is wide, is no setting that crept; tenths of a micrometre. */
const FAR = 1000;

/**
 * Says whether a point that is out is looked at before it is set: a gap that is far out, or moved fast, has a cause, and setting it
 * would hide that.
 *
 * Rule: far out is beyond its limit by more than 0.10 mm and by more than its band is wide; fast is by more than its band is wide, for
 * certain, since it was last known.
 *
 * @param gap as it is read now; tenths of a micrometre
 * @param before what it was when it was last known, before this build; null where nobody knows
 * @returns null where it is in its band, or nobody knows how far out it is
 * @example lookFirst({ lo: 500, hi: 600, floor: true }, 'tight', { min: 2000, max: 2500 }, null) // 'far-out'
 */
export function lookFirst(
  { lo, hi, floor }: Interval,
  verdict: Verdict,
  { min, max }: Limits,
  before: KnownBefore | null,
): LookFirst | null {
  if (verdict !== 'tight' && verdict !== 'loose') return null;
  const width = max - min;
  // of two ends the nearer one: the other may be only what nobody felt
  const out = verdict === 'tight' ? min - (hi ?? Infinity) : lo - max;
  if (out > Math.max(width, FAR)) return 'far-out';
  if (!before || before.hi === null || hi === null || !floor) return null;
  const [from, to] = [tenthsFromMm(before.lo), tenthsFromMm(before.hi)];
  return Math.max(from - hi, lo - to) > width ? 'moving-fast' : null;
}
