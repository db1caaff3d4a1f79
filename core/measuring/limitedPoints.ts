import type { ShopUnit } from '../length/index.ts';
import { lashPoints, pieceUnit, type FoundBand, type LashPoint, type Pattern } from '../sheets/index.ts';
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
    /** the maker's one figure, where the band is the shop's; null or absent where it is the maker's */
    readonly figure?: number | null;
    /** what it is judged by as it is found, where that is other than what it is set to */
    readonly asFound?: FoundBand | null;
    /** what holds once it is hot, where the engine is set cold */
    readonly whenHot?: WhenHot | null;
  }[];
}

/**
 * What a reading is held against: what a point is left alone between, as it is found, as it was left at proving, or in service; or what it
 * is set to.
 */
export type HeldAgainst = 'found' | 'left' | 'in-service' | 'set';

/** What holds of a role once the engine is hot, in a build that is set cold; mm. */
export interface WhenHot {
  readonly min: number;
  readonly max: number;
  readonly figure: number | null;
  readonly asWritten: string;
  readonly asFound: FoundBand | null;
  readonly allowOver: number;
  /** its gaps were found hot, before it was said that it cannot be run */
  readonly foundHot: boolean;
}

/** Limits of a role, with what is left alone as found; mm. */
interface JudgedLimits {
  readonly min: number;
  readonly max: number;
  readonly allowOver?: number | undefined;
  readonly figure?: number | null | undefined;
  readonly asWritten?: string | undefined;
  readonly asFound?: FoundBand | null | undefined;
  readonly whenHot?: WhenHot | null | undefined;
}

/**
 * Says whether readings are held against hot figures in a build that is set cold: in service always; as found where they were found hot.
 *
 * @example heldHot({ foundHot: true }, 'found') // true
 */
export const heldHot = ({ foundHot }: Pick<WhenHot, 'foundHot'>, against: HeldAgainst): boolean =>
  against === 'in-service' || (foundHot && against === 'found');

/**
 * Picks the limits of a role that a reading is held against. What a shop takes over the greatest belongs to what is set to, and to what
 * holds once it is run in; what a maker leaves alone is his own figure.
 *
 * @example limitsHeld({ min: 0.2, max: 0.25, allowOver: 0.01 }, 'found').allowOver // 0.01
 */
export function limitsHeld<Row extends JudgedLimits>(row: Row, against: HeldAgainst): Row {
  const { asFound, whenHot } = row;
  if (whenHot && heldHot(whenHot, against)) return limitsHeld({ ...row, ...whenHot, whenHot: null }, against);
  if (against === 'set' || !asFound) return row;
  const { min, max, figure, asWritten, kind } = asFound;
  return { ...row, min, max, figure, asWritten, allowOver: kind === 'leave' ? 0 : (row.allowOver ?? 0) };
}

/** A lash point with its limits; mm. */
export interface LimitedPoint extends LashPoint {
  readonly min: number;
  readonly max: number;
  /** taken over the greatest */
  readonly allowOver: number;
  /** what it is judged by, allowance inside; mm/10000 */
  readonly limits: Limits;
  /** whether it is judged here by what is left alone as found, or by what it is set to */
  readonly heldAgainst: HeldAgainst;
  /** what it is set to, whatever it is judged by here; mm/10000 */
  readonly toSet: Limits;
  /** the ends it may lie between, allowance inside: what blades are chosen by */
  readonly spec: { readonly min: number; readonly max: number };
  /** the limits as the source prints them; empty where nobody wrote that down, or where the band lies about another aim */
  readonly asWritten: string;
  /** the maker's one figure, where the band round it is the shop's */
  readonly figure: number | null;
  /** what it is left alone between as it is found, where that is other than what it is set to */
  readonly asFound: FoundBand | null;
  /** the unit its pieces are stamped in */
  readonly stamped: ShopUnit;
}

/** A lash point whose limits the sheet does not have yet: it is read, and nothing is judged. */
export interface UnlimitedPoint extends LashPoint {
  readonly limits: null;
  readonly spec: null;
  readonly asFound: null;
  readonly stamped: ShopUnit;
}

/** A lash point as it is measured: with its limits, or before its book is here. */
export type MeasuredPoint = LimitedPoint | UnlimitedPoint;

/**
 * Says whether a point has limits: whatever judges, sets, draws or plans asks first.
 *
 * @example measuredPoints(sheet).every(hasLimits) // true
 */
export const hasLimits = (point: MeasuredPoint): point is LimitedPoint => point.limits !== null;

const pointsKnown = (): WeakMap<LimitedSheet, readonly MeasuredPoint[]> => new WeakMap();
const known: Readonly<Record<HeldAgainst, ReturnType<typeof pointsKnown>>> = {
  ...{ found: pointsKnown(), left: pointsKnown(), 'in-service': pointsKnown(), set: pointsKnown() },
};

/**
 * Lists the lash points of a sheet that have limits, in the order they are measured in.
 *
 * @param against what is set to, unless it is asked what is left alone as found
 * @example limitedPoints(sheet)[0] // { key: '1I', role: 'intake', min: 0.2, max: 0.25, ... }
 */
export function limitedPoints(sheet: LimitedSheet, against: HeldAgainst = 'set'): readonly LimitedPoint[] {
  const points = measuredPoints(sheet, against);
  // the same list each time where nothing is left out of it
  return points.every(hasLimits) ? points : points.filter(hasLimits);
}

/**
 * Lists every lash point of a sheet, in the order they are measured in, each with its limits where the sheet has them. For one sheet the
 * list is made once, and the same each time.
 *
 * @param against what is set to, unless it is asked what is left alone as found
 * @example measuredPoints({ ...sheet, limits: [] })[0].limits // null
 * Rule: an engine may be read before its book is here.
 */
export function measuredPoints(sheet: LimitedSheet, against: HeldAgainst = 'set'): readonly MeasuredPoint[] {
  const before = known[against].get(sheet);
  if (before) return before;
  const points = lashPoints(sheet.pattern).map((point): MeasuredPoint => {
    const stamped = pieceUnit(sheet.pattern, point.role);
    const row = sheet.limits.find(({ role }) => role === point.role);
    if (!row) return { ...point, limits: null, spec: null, asFound: null, stamped };
    const { min, max, allowOver = 0, figure = null, asWritten } = limitsHeld(row, against);
    const { aimedOutside = false, asFound = null } = row;
    const toSet = limitsFromMm({ ...row, allowOver: row.allowOver ?? 0 });
    const limits = limitsFromMm({ min, max, allowOver, figure });
    return {
      ...point,
      ...{ min, max, allowOver, limits, spec: specOf(limits) },
      // what the source prints says nothing of a band that lies about another aim
      asWritten: aimedOutside ? '' : asWritten,
      ...{ figure, asFound, toSet, heldAgainst: against },
      stamped,
    };
  });
  known[against].set(sheet, points);
  return points;
}
