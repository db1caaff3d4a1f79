import type { Interval, Limits } from '../measuring/index.ts';
import type { Tenths } from '../length/index.ts';

/** How sure it is that a change leaves the gap in its band. */
export type Sureness = 'certain' | 'likely' | 'unsolved';

/**
 * Works out what a clearance becomes when one graded piece is changed for another: a thicker shim closes the gap by
 * as much as it is thicker, on both ends of what is known.
 *
 * @param measured the interval found with `installed` in place, in tenths of a micrometre
 * @returns the interval with `fitted` in place; it may go below 0, which means the valve would be held open
 * @example afterShim({ lo: 700, hi: 800 }, 22500, 21500) // { lo: 1700, hi: 1800 }
 */
export function afterShim(measured: Interval, installed: Tenths, fitted: Tenths): Interval {
  const change = installed - fitted;
  return { lo: measured.lo + change, hi: measured.hi === null ? null : measured.hi + change };
}

/**
 * Says how sure it is that an interval lies in its band: all of it, only its middle, or not even that.
 *
 * @example sureness({ lo: 1400, hi: 1500 }, { min: 1100, max: 1900 }) // 'certain'
 */
export function sureness({ lo, hi }: Interval, { min, max }: Limits): Sureness {
  if (hi === null) return 'unsolved';
  if (lo >= min && hi <= max) return 'certain';
  const twiceMiddle = lo + hi;
  return twiceMiddle >= 2 * min && twiceMiddle <= 2 * max ? 'likely' : 'unsolved';
}

/** The piece that would bring one point nearest its target. */
export interface ShimChoice {
  /** the exact thickness wanted, made or not */
  readonly needed: Tenths;
  readonly pick: Tenths;
  readonly result: Interval;
  readonly sureness: Sureness;
}

/**
 * Chooses, of the sizes made, the one that leaves a point nearest its target: new = installed + measured − target.
 *
 * @param sizes thicknesses that exist, in tenths of a micrometre
 * @returns null where nothing bounds the reading or no size exists; of two equally near, the thinner, which errs loose
 * @example chooseShim({ lo: 700, hi: 800 }, 22500, 1500, limits, sizes)?.pick // 21500 or 22000, whichever is made
 */
export function chooseShim(
  measured: Interval,
  installed: Tenths,
  target: Tenths,
  limits: Limits,
  sizes: readonly Tenths[],
): ShimChoice | null {
  if (measured.hi === null || sizes.length === 0) return null;
  const needed = installed + (measured.lo + measured.hi) / 2 - target;
  const pick = [...sizes].sort((a, b) => Math.abs(a - needed) - Math.abs(b - needed) || a - b)[0]!;
  const result = afterShim(measured, installed, pick);
  return { needed, pick, result, sureness: sureness(result, limits) };
}
