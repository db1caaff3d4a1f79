import { mmFromTenths, tenthsFromMm, type Tenths } from '../length/index.ts';
import { hasFloor, type Interval } from './interval.ts';

/** What an interval says against its limits. */
export type Verdict =
  'tight' | 'loose' | 'in-spec' | 'undecided' | 'undecided-low' | 'undecided-high' | 'conflict';

/** Limits of a clearance in tenths of a micrometre, with what is allowed beyond them. */
export interface Limits {
  readonly min: Tenths;
  readonly max: Tenths;
  /** allowed past the maximum, for the gauge's own doubt; under the minimum no more than rounding leaves; 0 where absent */
  readonly limitTolerance?: Tenths;
  /** allowed over the maximum only; never under the minimum; 0 where absent */
  readonly allowOver?: Tenths;
  /** the maker's one figure, where the band round it is the shop's: it judges nothing, and is what is aimed at */
  readonly figure?: Tenths;
}

/** A verdict, and whether it is in spec only by an allowance. */
export interface Judgement {
  readonly verdict: Verdict;
  readonly onLimit: boolean;
}

/** What rounding between thou and mm leaves: 8 thou and 0.20 mm are 0.0032 mm apart. Nothing else goes under the minimum. */
const ROUNDING = 35;

/**
 * Judges an interval against its limits. Tightness comes first: a valve that may not close is the dangerous side. Where no
 * blade went nothing bounds the gap from below, and it is never in spec, also where the minimum is 0. Without limits nothing is decided.
 *
 * @param interval what is known of the clearance
 * @param limits in tenths of a micrometre; null where the sheet has none yet
 * @example judge({ lo: 1300, hi: 1500 }, { min: 1300, max: 1800 }) // { verdict: 'in-spec', onLimit: false }
 */
export function judge(interval: Interval, limits: Limits | null): Judgement {
  if (limits === null) return { verdict: contradicts(interval) ? 'conflict' : 'undecided', onLimit: false };
  const verdict = verdictFor(interval, limits);
  const onLimit =
    verdict === 'in-spec' && verdictFor(interval, { min: limits.min, max: limits.max }) !== 'in-spec';
  return { verdict, onLimit };
}

/**
 * The ends a gap may lie between, allowances inside: what a point is judged by, drawn by and planned to.
 *
 * @example endsOf({ min: 2032, max: 3000, allowOver: 200 }) // { min: 2032, max: 3200 }
 */
export function endsOf({ min, max, limitTolerance = 0, allowOver = 0 }: Limits): {
  readonly min: Tenths;
  readonly max: Tenths;
} {
  return {
    min: Math.max(0, min - Math.min(limitTolerance, ROUNDING)),
    max: max + limitTolerance + allowOver,
  };
}

/**
 * The limits a point is judged by, made from what its sheet and its build say in mm. Everybody who judges, draws, foresees or
 * plans takes them from here, with the allowance inside.
 *
 * @example limitsFromMm({ min: 0.2, max: 0.26, allowOver: 0.02 }) // { min: 2000, max: 2600, allowOver: 200 }
 */
export function limitsFromMm({
  min,
  max,
  allowOver = 0,
  figure = null,
}: {
  readonly min: number;
  readonly max: number;
  readonly allowOver?: number | undefined;
  readonly figure?: number | null | undefined;
}): Limits {
  return {
    min: tenthsFromMm(min),
    max: tenthsFromMm(max),
    ...(allowOver > 0 ? { allowOver: tenthsFromMm(allowOver) } : {}),
    ...(figure === null ? {} : { figure: tenthsFromMm(figure) }),
  };
}

/**
 * The ends a gap may lie between in mm, allowances inside: what blades are chosen by.
 *
 * @example specOf({ min: 2000, max: 2600, allowOver: 200 }) // { min: 0.2, max: 0.28 }
 */
export function specOf(limits: Limits): { readonly min: number; readonly max: number } {
  const { min, max } = endsOf(limits);
  return { min: mmFromTenths(min), max: mmFromTenths(max) };
}

const contradicts = ({ lo, hi }: Interval): boolean => hi !== null && lo > hi;

function verdictFor(interval: Interval, limits: Limits): Verdict {
  const { min, max } = endsOf(limits);
  if (contradicts(interval)) return 'conflict';
  const hi = interval.hi ?? Infinity;
  const lo = hasFloor(interval) ? interval.lo : -Infinity;
  if (hi <= limits.min && lo < min) return 'tight';
  if (lo > max) return 'loose';
  const mayBeUnder = lo < min;
  const mayBeOver = hi > max;
  if (mayBeUnder && mayBeOver) return 'undecided';
  if (mayBeUnder) return 'undecided-low';
  if (mayBeOver) return 'undecided-high';
  return 'in-spec';
}
