import { tableStops } from './makersTable.ts';
import { lashPoints, type LashPoint } from '../sheets/lashPoints.ts';
import { apart, closedLength, CYCLE, inCycle, mayMeasureAt, openSpan, type OpenSpan } from './openSpan.ts';
import { marginOf } from './margin.ts';
import type { Pattern } from '../sheets/pattern.ts';
import { liftShare } from './valveLift.ts';

/** How near an angle counts as being at a position of the maker's table. */
const AT_STOP = 2;

/** A lash point with the part of the cycle in which it is off its base circle. */
export interface SpannedPoint {
  readonly point: LashPoint;
  readonly span: OpenSpan;
}

/**
 * Lists a pattern's lash points with their open spans, in crank degrees of the engine.
 *
 * @example spannedPoints(inlineFour)[0].span // { start: 346, length: 246 }
 */
export function spannedPoints(pattern: Pattern): SpannedPoint[] {
  return lashPoints(pattern).map((point) => ({
    point,
    span: openSpan(point, pattern.cylinders, pattern.timing),
  }));
}

/**
 * Says whether a point of a pattern may be measured with the crank at an angle: on its base circle, clear of both
 * ramps by the pattern's margin; or where the maker's own table has it measured there.
 *
 * @returns false for a point the pattern does not have
 * @example mayMeasurePoint(inlineFour, '1E', 0) // true
 */
export function mayMeasurePoint(pattern: Pattern, key: string, angle: number): boolean {
  const found = spannedPoints(pattern).find(({ point }) => point.key === key);
  if (found === undefined) return false;
  // where the maker's own table has it, it is measured there
  const listed = tableStops(pattern).some(
    (stop) => apart(stop.angle, angle) <= AT_STOP && stop.points.includes(key),
  );
  return listed || mayMeasureAt(found.span, marginOf(pattern), angle);
}

/**
 * Lists the points that no place of the crank leaves on their base circle, clear of both ramps: their timing or the margin is no
 * engine's. What the maker's own table has is measured there.
 *
 * @example pointsNeverClosed({ ...inlineFour, margin: 60 }) // [] unless its valves are open nearly all the way round
 */
export function pointsNeverClosed(pattern: Pattern): readonly string[] {
  const listed = new Set(tableStops(pattern).flatMap(({ points }) => points));
  return spannedPoints(pattern)
    .filter(({ point, span }) => !listed.has(point.key) && closedLength(span, marginOf(pattern)) < 0)
    .map(({ point }) => point.key);
}

/** How the valve gear of one lash point stands at an angle. */
export interface GearState {
  readonly key: string;
  /** may be measured here */
  readonly closed: boolean;
  /** 0 on the base circle to 1 fully open */
  readonly lift: number;
  /** degrees the nose of its lobe is turned from its follower, −180 to 180, at half the crank's speed */
  readonly noseAt: number;
}

/**
 * Says how the valve gear stands with the crank at an angle: which lobes point where, and how far each valve is open.
 *
 * @param points from `spannedPoints`, so that turning the crank works nothing out twice
 * @example gearAt(spannedPoints(pattern), marginOf(pattern), 0)[0].closed // true
 */
export function gearAt(points: readonly SpannedPoint[], margin: number, angle: number): GearState[] {
  return points.map(({ point, span }) => {
    const fromMiddle = inCycle(angle - span.start - span.length / 2 + CYCLE / 2) - CYCLE / 2;
    return {
      key: point.key,
      closed: mayMeasureAt(span, margin, angle),
      lift: liftShare(span, angle),
      noseAt: fromMiddle / 2,
    };
  });
}

/**
 * Finds the points that may be measured with the crank at an angle; null where nobody has said where it stands.
 *
 * @param angle crank degrees from the first cylinder's firing TDC
 * @example pointsClosedAt(pattern, 0)?.has('1I') // true
 */
export function pointsClosedAt(pattern: Pattern, angle: number | null): ReadonlySet<string> | null {
  if (angle === null) return null;
  const gear = gearAt(spannedPoints(pattern), marginOf(pattern), angle);
  return new Set(
    gear.filter(({ key, closed }) => closed || mayMeasurePoint(pattern, key, angle)).map(({ key }) => key),
  );
}
