import { tenthsFromMm } from '../length/index.ts';
import type { KnownGap } from './interval.ts';
import type { Limits } from './judge.ts';

/**
 * Says whether a blade of the greatest clearance just goes: the gap is that, or a little more, and the next blade does not tell.
 *
 * Rule: what is taken over the greatest is the sheet's or the shop's allowance; without one such a point stays undecided, or is over.
 *
 * @param gap in mm
 * @example justGoes({ lo: 0.25, hi: 0.3 }, { min: 2000, max: 2500 }) // true
 */
export function justGoes({ lo, hi }: KnownGap, { max }: Limits): boolean {
  return tenthsFromMm(lo) === max && (hi === null || tenthsFromMm(hi) > max);
}
