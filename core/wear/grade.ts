/** What a worn part comes to: used again, used again and looked at sooner, or replaced. */
export type Grade = 'keep' | 'watch' | 'replace';

/** What a part may wear from and to, in the unit of its figure. */
export interface WearLimits {
  readonly nominal: number;
  readonly limit: number;
}

/** From this share of its allowance a part is watched; above the whole of it, it is replaced. */
const WATCH_FROM = 0.7;
/** Within this of a boundary a figure lies on it. */
const ON_BOUNDARY = 1e-9;

const GRADES: readonly Grade[] = ['keep', 'watch', 'replace'];

/**
 * Says which share of its allowance a figure has used: 0 at nominal, 1 at the limit; below 0 where it is better than new.
 *
 * @throws RangeError where limit and nominal are the same figure
 * @example shareUsed(8.501, { nominal: 8.62, limit: 8.45 }) // 0.7
 */
export function shareUsed(measured: number, { nominal, limit }: WearLimits): number {
  if (limit === nominal) throw new RangeError('limit must differ from nominal');
  return (measured - nominal) / (limit - nominal);
}

/**
 * Grades a share of an allowance: kept below 0.7, watched from there, replaced above 1. At the very limit it is watched.
 *
 * @example gradeOf(1) // 'watch'
 */
export function gradeOf(used: number): Grade {
  if (used > 1 + ON_BOUNDARY) return 'replace';
  return used >= WATCH_FROM - ON_BOUNDARY ? 'watch' : 'keep';
}

/**
 * Grades a figure that has a limit and no nominal, such as ovality: by its share of the limit. A limit of nothing is a limit: any
 * more than that is past it.
 *
 * @throws RangeError where the limit is under 0
 * @example gradeOfLimit(0.022, 0.02) // 'replace'
 */
export function gradeOfLimit(value: number, limit: number): Grade {
  if (limit === 0) return isUnder(0, value) ? 'replace' : 'keep';
  return gradeOf(shareOfLimit(value, limit));
}

/**
 * Says which share of a limit a figure is.
 *
 * @throws RangeError where the limit is not above 0
 * @example shareOfLimit(0.7, 1.5)
 */
export function shareOfLimit(value: number, limit: number): number {
  if (!(limit > 0)) throw new RangeError('a limit must be above 0');
  return value / limit;
}

/**
 * Finds the worst of several grades; `keep` where there is none.
 *
 * @example worstOf(['keep', 'watch']) // 'watch'
 */
export function worstOf(grades: readonly Grade[]): Grade {
  return GRADES[Math.max(0, ...grades.map((grade) => GRADES.indexOf(grade)))]!;
}

/** Whether a figure is under another by more than lies on the boundary. */
export const isUnder = (figure: number, least: number): boolean => figure < least - ON_BOUNDARY;
