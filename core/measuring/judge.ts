import type { Tenths } from '../length/index.ts';
import type { Interval } from './interval.ts';

/** What an interval says against its limits. */
export type Verdict =
  'tight' | 'loose' | 'in-spec' | 'undecided' | 'undecided-low' | 'undecided-high' | 'conflict';

/** Limits of a clearance in tenths of a micrometre, with what a shop may allow beyond them. */
export interface Limits {
  readonly min: Tenths;
  readonly max: Tenths;
  /** allowed past either limit, for the gauge's own doubt; 0 where absent */
  readonly limitTolerance?: Tenths;
  /** allowed over the maximum only, by a shop's own rule; never under the minimum; 0 where absent */
  readonly allowOver?: Tenths;
}

/** A verdict, and whether it is in spec only by an allowance. */
export interface Judgement {
  readonly verdict: Verdict;
  readonly onLimit: boolean;
}

/**
 * Judges an interval against its limits. Tightness comes first: a valve that may not close is the dangerous side.
 *
 * @param interval what is known of the clearance
 * @param limits in tenths of a micrometre
 * @example judge({ lo: 1300, hi: 1500 }, { min: 1300, max: 1800 }) // { verdict: 'in-spec', onLimit: false }
 */
export function judge(interval: Interval, limits: Limits): Judgement {
  const verdict = verdictFor(interval, limits);
  const onLimit =
    verdict === 'in-spec' && verdictFor(interval, { min: limits.min, max: limits.max }) !== 'in-spec';
  return { verdict, onLimit };
}

function verdictFor({ lo, hi: bound }: Interval, limits: Limits): Verdict {
  const tolerance = limits.limitTolerance ?? 0;
  const min = limits.min - tolerance;
  const max = limits.max + tolerance + (limits.allowOver ?? 0);
  const hi = bound ?? Infinity;
  if (lo > hi) return 'conflict';
  if (hi <= min && lo < min) return 'tight';
  if (lo > max) return 'loose';
  const mayBeUnder = lo < min;
  const mayBeOver = hi > max;
  if (mayBeUnder && mayBeOver) return 'undecided';
  if (mayBeUnder) return 'undecided-low';
  if (mayBeOver) return 'undecided-high';
  return 'in-spec';
}
