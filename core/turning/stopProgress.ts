import { apart, inCycle } from './openSpan.ts';
import type { PlannedStop, StopPlan } from './stopPlan.ts';

/** One stop of a plan as it stands in a round. */
export interface StopStatus {
  readonly stop: PlannedStop;
  /** from 1, in turning order */
  readonly number: number;
  readonly place: 'done' | 'here' | 'to-come';
  /** its points that are not measured yet */
  readonly left: readonly string[];
}

/** How far the turning of a round has come. */
export interface StopProgress {
  readonly stops: readonly StopStatus[];
  /** the stop the crank stands at; null between stops, or where nobody has said */
  readonly here: StopStatus | null;
  /** the next stop in turning order with something left to measure; null when nothing is left */
  readonly next: StopStatus | null;
}

/** How near a stop the crank counts as standing at it, and how near an angle is the same angle. */
const AT_DEGREES = 2;
const SAME_DEGREES = 0.01;

/**
 * Works out how far the turning of a round has come: which stops are done, where the crank stands, where to turn next.
 *
 * A stop is done when all its points are measured, or when the bench said so; the next one is looked for onward from
 * where the crank stands, because an engine is only ever turned on.
 *
 * @param at where the crank stands, in crank degrees; null where that is not known
 * @param done angles of stops the bench has left
 * @param measured keys that have a reading in the round
 * @example stopProgress(plan, { at: 0, done: [] }, new Set(['1I'])).here?.left
 */
export function stopProgress(
  plan: StopPlan,
  { at, done }: { readonly at: number | null; readonly done: readonly number[] },
  measured: ReadonlySet<string>,
): StopProgress {
  const stood = at === null ? null : nearestStop(plan, at);
  const stops = plan.stops.map((stop, index): StopStatus => {
    const left = stop.points.filter((key) => !measured.has(key));
    const finished = left.length === 0 || done.some((angle) => apart(angle, stop.angle) <= SAME_DEGREES);
    return { stop, number: index + 1, left, place: stop === stood ? 'here' : finished ? 'done' : 'to-come' };
  });
  const onward = [...stops].sort((a, b) => wayTo(a.stop, at) - wayTo(b.stop, at));
  return {
    stops,
    here: stops.find(({ place }) => place === 'here') ?? null,
    next: onward.find(({ place, left }) => place !== 'here' && left.length > 0) ?? null,
  };
}

/** The one stop the crank stands at: stops may lie closer together than a crank is turned to. */
function nearestStop({ stops }: StopPlan, at: number): PlannedStop | null {
  const [nearest] = [...stops].sort((a, b) => apart(a.angle, at) - apart(b.angle, at));
  return nearest && apart(nearest.angle, at) <= AT_DEGREES ? nearest : null;
}

const wayTo = (stop: PlannedStop, at: number | null) => (at === null ? stop.angle : inCycle(stop.angle - at));
