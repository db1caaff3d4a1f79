import { mayMeasureAt, openSpan, type FiringCylinder, type TimedPoint } from './openSpan.ts';
import type { ValveTiming } from '../sheets/pattern.ts';

/** Crank angles to list, and what is to be measured. Angles in crank degrees. */
export interface StopTableInput {
  readonly cylinders: readonly FiringCylinder[];
  readonly points: readonly TimedPoint[];
  readonly events: ValveTiming;
  readonly angles: readonly number[];
  readonly margin: number;
}

/** The points on their base circle at one angle, in the order they were given. */
export interface StopTableRow {
  readonly angle: number;
  readonly closed: readonly string[];
}

/**
 * Lists, for each angle, the points that may be measured there.
 *
 * @throws RangeError when a point names a cylinder that is not there
 * @example stopTable(given('stop-table')).stops[0].closed // ['1I', '1E']
 * Rule: geometry of the cams; these rows are the tables printed for common firing orders.
 */
export function stopTable(input: StopTableInput): { readonly stops: readonly StopTableRow[] } {
  const spans = input.points.map((point) => ({
    key: point.key,
    span: openSpan(point, input.cylinders, input.events),
  }));
  return {
    stops: input.angles.map((angle) => ({
      angle,
      closed: spans.filter(({ span }) => mayMeasureAt(span, input.margin, angle)).map(({ key }) => key),
    })),
  };
}
