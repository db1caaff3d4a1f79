import { intervalOf, USUAL_REPEATABILITY_MM, type Interval } from './interval.ts';
import { judge, type Limits, type Verdict } from './judge.ts';
import type { Try, TryResult } from './reading.ts';

/** What one outcome of the next try would prove. */
export interface Foreseen {
  readonly result: TryResult;
  readonly interval: Interval;
  readonly verdict: Verdict;
}

const RESULTS: readonly TryResult[] = ['goes', 'drags', 'wont'];

/**
 * Says what each outcome of a try would mean, before it is made.
 *
 * @param tries made so far; thickness and repeatability in mm
 * @param limits null where the sheet has none yet: nothing is decided
 * @example foresee([], 0.13, { min: 0.13, max: 0.17 }).find(({ result }) => result === 'wont')?.verdict // 'undecided'
 */
export function foresee(
  tries: readonly Try[],
  thickness: number,
  limits: Limits | null,
  repeatability = USUAL_REPEATABILITY_MM,
  hollow = false,
): Foreseen[] {
  return RESULTS.map((result) => {
    const all = [...tries, { thickness, result }];
    const interval = intervalOf({ kind: 'tries', tries: all, repeatability }, hollow);
    return { result, interval, verdict: judge(interval, limits).verdict };
  });
}

/**
 * Drops the tries that the newest one contradicts, so that what is left agrees: feel improves with each try.
 *
 * @param tries oldest first; lengths in mm
 * @example withoutContradicted([{ thickness: 0.2, result: 'goes' }, { thickness: 0.1, result: 'wont' }]) // the second alone
 */
export function withoutContradicted(tries: readonly Try[], repeatability = USUAL_REPEATABILITY_MM): Try[] {
  const newest = tries.at(-1);
  if (!newest) return [];
  return tries.filter((one) => {
    const { lo, hi } = intervalOf({ kind: 'tries', tries: [one, newest], repeatability });
    return hi === null || lo <= hi;
  });
}

/** How two looks at one point stand to each other; lengths in tenths of a micrometre. */
export interface LooksCompared {
  /** some clearance fits both */
  readonly agree: boolean;
  /** how far the two lie apart at least; 0 where they agree */
  readonly apart: number;
}

/**
 * Compares two looks at one point by two people: they agree where some clearance fits both.
 *
 * @example compareLooks({ lo: 1300, hi: 1500 }, { lo: 1600, hi: 1700 }) // { agree: false, apart: 100 }
 */
export function compareLooks(first: Interval, second: Interval): LooksCompared {
  const gap = Math.max(second.lo - (first.hi ?? Infinity), first.lo - (second.hi ?? Infinity), 0);
  return { agree: gap === 0, apart: gap };
}

/**
 * Says whether a verdict settles a point, so that the bench goes on to the next one.
 *
 * @example isDecided('undecided-low') // false
 */
export function isDecided(verdict: Verdict): boolean {
  return verdict === 'in-spec' || verdict === 'tight' || verdict === 'loose';
}
