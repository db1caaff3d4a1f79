import type { ShopUnit } from '../length/index.ts';
import { lashPoints, pieceUnit, type LashPoint, type Pattern } from '../sheets/index.ts';
import { limitsFromMm, specOf, type Limits } from './judge.ts';

/** A sheet, as far as the limits that its points are judged by go; mm. */
interface LimitedSheet {
  readonly pattern: Pattern;
  /** by role: as the sheet gives them, or as the build is judged by, see `effectiveLimits` */
  readonly limits: readonly {
    readonly role: string;
    readonly min: number;
    readonly max: number;
    readonly allowOver?: number;
    readonly aimedOutside?: boolean;
    readonly asWritten: string;
  }[];
}

/** A lash point with its limits; mm. */
export interface LimitedPoint extends LashPoint {
  readonly min: number;
  readonly max: number;
  /** taken over the greatest */
  readonly allowOver: number;
  /** what it is judged by, allowance inside; mm/10000 */
  readonly limits: Limits;
  /** the ends it may lie between, allowance inside: what blades are chosen by */
  readonly spec: { readonly min: number; readonly max: number };
  /** the limits as the source prints them; empty where nobody wrote that down, or where the band lies about another aim */
  readonly asWritten: string;
  /** the unit its pieces are stamped in */
  readonly stamped: ShopUnit;
}

const known = new WeakMap<LimitedSheet, readonly LimitedPoint[]>();

/**
 * Lists every lash point of a sheet with its limits, in the order they are measured in. For one sheet the list is made once, and the
 * same each time.
 *
 * @example limitedPoints(sheet)[0] // { key: '1I', role: 'intake', min: 0.2, max: 0.25, ... }
 */
export function limitedPoints(sheet: LimitedSheet): readonly LimitedPoint[] {
  const before = known.get(sheet);
  if (before) return before;
  const points = lashPoints(sheet.pattern).map((point) => {
    const {
      min,
      max,
      allowOver = 0,
      aimedOutside = false,
      asWritten,
    } = sheet.limits.find(({ role }) => role === point.role)!;
    const limits = limitsFromMm({ min, max, allowOver });
    return {
      ...point,
      ...{ min, max, allowOver, limits, spec: specOf(limits) },
      // what the source prints says nothing of a band that lies about another aim
      asWritten: aimedOutside ? '' : asWritten,
      stamped: pieceUnit(sheet.pattern, point.role),
    };
  });
  known.set(sheet, points);
  return points;
}
