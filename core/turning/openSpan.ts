import { liftAfterFiring } from '../sheets/lashPoints.ts';
import type { ValveTiming } from '../sheets/pattern.ts';

/** A full cycle of a four-stroke engine: two turns of the crank, in degrees. */
export const CYCLE = 720;

/** A cylinder as far as angles go. */
export interface FiringCylinder {
  readonly id: string;
  /** crank degrees of its firing TDC */
  readonly firesAt: number;
}

/** A lash point as far as angles go; `opens` and `closes` (after its firing TDC) override the timing. */
export interface TimedPoint {
  readonly key: string;
  readonly cylinder: string;
  readonly role: string;
  readonly opens?: number | undefined;
  readonly closes?: number | undefined;
}

/** The part of the cycle in which a point is off its base circle: from `start` (0 to under 720) for `length` degrees. */
export interface OpenSpan {
  readonly start: number;
  readonly length: number;
}

/**
 * Brings an angle into the cycle, 0 to under 720.
 *
 * @example inCycle(-90) // 630
 */
export function inCycle(angle: number): number {
  return ((angle % CYCLE) + CYCLE) % CYCLE;
}

/**
 * How far two angles of the cycle lie apart, the shorter way round.
 *
 * @example apart(700, 20) // 40
 */
export function apart(a: number, b: number): number {
  const distance = inCycle(a - b);
  return Math.min(distance, CYCLE - distance);
}

/**
 * Finds when a point is off its base circle, in crank degrees of the engine.
 *
 * Exhausts open before the bottom dead centre that ends the power stroke and close after the overlap; intakes open
 * before the overlap and close after the bottom dead centre that follows. A closing side moves with its valve.
 *
 * @throws RangeError when the point names a cylinder that is not there, or a role without a span of its own
 * @example openSpan({ key: '1I', cylinder: '1', role: 'intake' }, cylinders, timing) // { start: 346, length: 246 }
 */
export function openSpan(
  point: TimedPoint,
  cylinders: readonly FiringCylinder[],
  timing: ValveTiming,
): OpenSpan {
  const cylinder = cylinders.find(({ id }) => id === point.cylinder);
  if (!cylinder) throw new RangeError(`${point.key}: there is no cylinder ${point.cylinder}`);
  const [opens, closes] = spanAfterFiring(point, timing);
  return { start: inCycle(cylinder.firesAt + opens), length: closes - opens };
}

function spanAfterFiring(point: TimedPoint, timing: ValveTiming): readonly [number, number] {
  if (point.opens !== undefined && point.closes !== undefined) return [point.opens, point.closes];
  if (point.role.startsWith('exhaust')) return liftAfterFiring('exhaust', timing);
  if (point.role.startsWith('intake')) return liftAfterFiring('intake', timing);
  throw new RangeError(`${point.key}: a ${point.role} point needs its own opens and closes`);
}

/** Within this of a boundary an angle lies on it. */
const ON_BOUNDARY = 1e-9;

/**
 * How many degrees of the cycle a point may be measured in: what its open span leaves, less the margin on both sides.
 * Under 0 where the two ramps meet and it never may; exactly 0 where one angle is left.
 *
 * @example closedLength({ start: 346, length: 246 }, 15) // 444
 */
export function closedLength(span: OpenSpan, margin: number): number {
  const left = CYCLE - span.length - 2 * margin;
  return Math.abs(left) < ON_BOUNDARY ? 0 : left;
}

/**
 * Says whether a point may be measured at an angle: outside its open span widened by a margin on both sides. The edge
 * itself is allowed. A span that, so widened, fills the whole cycle leaves no angle at all.
 *
 * @example mayMeasureAt({ start: 346, length: 246 }, 15, 0) // true
 */
export function mayMeasureAt(span: OpenSpan, margin: number, angle: number): boolean {
  if (closedLength(span, margin) < 0) return false;
  const into = inCycle(angle - (span.start - margin));
  const width = span.length + 2 * margin;
  return into < ON_BOUNDARY || into > width - ON_BOUNDARY || CYCLE - into < ON_BOUNDARY;
}
