import { apart, CYCLE, inCycle, openSpan, type FiringCylinder, type TimedPoint } from './openSpan.ts';
import type { ValveTiming } from '../sheets/pattern.ts';

/** Points to pair, and how near fully open counts. Angles in crank degrees. */
export interface OpenPairsInput {
  readonly cylinders: readonly FiringCylinder[];
  readonly points: readonly TimedPoint[];
  readonly events: ValveTiming;
  readonly within: number;
}

/** When one point is best checked, and which valves are then seen fully open. */
export interface OpenPair {
  readonly check: string;
  /** crank degrees, 0 to under 720, to a millionth */
  readonly at: number;
  readonly fullyOpen: readonly string[];
}

/**
 * Finds each point's own best angle, 360° after the middle of its open span, and the points that stand within
 * `within` degrees of fully open there.
 *
 * @throws RangeError when a point names a cylinder that is not there
 * @example openPairs(given('open-pairs')).pairs.length // 2
 */
export function openPairs(input: OpenPairsInput): { readonly pairs: readonly OpenPair[] } {
  const middles = input.points.map((point) => {
    const span = openSpan(point, input.cylinders, input.events);
    return { key: point.key, middle: inCycle(span.start + span.length / 2) };
  });
  return {
    pairs: middles.map(({ key, middle }) => {
      const at = Math.round(inCycle(middle + CYCLE / 2) * 1e6) / 1e6;
      return {
        check: key,
        at,
        fullyOpen: middles
          .filter((other) => other.key !== key && apart(other.middle, at) <= input.within + 1e-9)
          .map((other) => other.key),
      };
    }),
  };
}
