import { closedLength, CYCLE, inCycle, mayMeasureAt, openSpan } from './openSpan.ts';
import type { FiringCylinder, TimedPoint } from './openSpan.ts';
import type { ValveTiming } from '../sheets/pattern.ts';

/** Where an engine may be stopped, and what is to be measured on it. Angles in crank degrees. */
export interface CrankStopsInput {
  readonly cylinders: readonly FiringCylinder[];
  readonly points: readonly TimedPoint[];
  readonly events: ValveTiming;
  /** the marks of the pulley over two turns, or any angle at all */
  readonly marks: readonly number[] | 'any';
  readonly margin: number;
}

/** One crank position to measure at. */
export interface CrankStop {
  /** 0 to under 720 */
  readonly angle: number;
  /** degrees to turn on from the stop before, in running direction; 0 at the first */
  readonly turn: number;
  /** the points done here and not before */
  readonly points: readonly string[];
}

/** The fewest stops that reach every point that can be reached. */
export interface CrankStopsPlan {
  readonly count: number;
  readonly stops: readonly CrankStop[];
  readonly unreachable: readonly string[];
}

interface Reach {
  readonly key: string;
  readonly reaches: (angle: number) => boolean;
  /** where the span in which it may be measured begins */
  readonly from: number;
  /** degrees of that span; under 0 where it never may */
  readonly length: number;
}

/**
 * Finds the fewest stops of the crank at which every point may be measured, exactly.
 *
 * What one point allows is an arc of the cycle. The fewest stops that touch every arc are found by cutting the circle
 * at one stop and sweeping on: at each arc's end, a stop if its point was not reached yet. Which stop to cut at is tried
 * through: every arc's end where any angle serves, every mark of the arc that fewest marks serve where only marks do.
 * Each stop then stands where its points allow it the most room, as far from every ramp as it can be.
 *
 * @throws RangeError when a point names a cylinder that is not there
 * @example crankStops(given('crank-stops')).count // 1
 */
export function crankStops(input: CrankStopsInput): CrankStopsPlan {
  const reaches = input.points.map((point): Reach => {
    const span = openSpan(point, input.cylinders, input.events);
    return {
      key: point.key,
      from: inCycle(span.start + span.length + input.margin),
      length: closedLength(span, input.margin),
      reaches: (angle) => mayMeasureAt(span, input.margin, angle),
    };
  });
  const marks = input.marks === 'any' ? null : [...new Set(input.marks.map(inCycle))].sort(byAngle);
  const unreachable = reaches.filter((reach) => (marks ? !marks.some(reach.reaches) : reach.length < 0));
  const reachable = reaches.filter((reach) => !unreachable.includes(reach));
  const angles = marks ? fewestMarks(reachable, marks) : fewestAngles(reachable);
  return {
    count: angles.length,
    stops: inTurningOrder(angles, reachable),
    unreachable: unreachable.map(({ key }) => key),
  };
}

const byAngle = (a: number, b: number) => a - b;

/** The fewest marks that touch every arc: one of them is a mark of the arc that fewest marks serve. */
function fewestMarks(reaches: readonly Reach[], marks: readonly number[]): number[] {
  if (reaches.length === 0) return [];
  const served = reaches.map((reach) => marks.filter(reach.reaches));
  const hardest = served.reduce((few, some) => (some.length < few.length ? some : few));
  let best: Reach[][] | null = null;
  for (const first of hardest) {
    const groups = sweepMarksFrom(first, reaches, served);
    if (!best || groups.length < best.length) best = groups;
  }
  return best!.map((group) => roomiestMark(group, marks)).sort(byAngle);
}

/** Stops at `cut`, then sweeps on: at the last mark of each arc, stop if its point was not reached yet. */
function sweepMarksFrom(
  cut: number,
  reaches: readonly Reach[],
  served: readonly (readonly number[])[],
): Reach[][] {
  const groups = [reaches.filter((_, index) => served[index]!.includes(cut))];
  const rest = reaches
    .map((reach, index) => ({ reach, along: served[index]!.map((mark) => inCycle(mark - cut)) }))
    .filter((_, index) => !served[index]!.includes(cut))
    .map(({ reach, along }) => ({ reach, first: Math.min(...along), last: Math.max(...along) }))
    .sort((a, b) => a.last - b.last);
  let at = -1;
  for (const { reach, first, last } of rest) {
    if (first > at) {
      at = last;
      groups.push([]);
    }
    groups.at(-1)!.push(reach);
  }
  return groups;
}

/** Of the marks that every member allows, the one farthest from all their ramps; the earliest of equals. */
function roomiestMark(group: readonly Reach[], marks: readonly number[]): number {
  const room = (mark: number) =>
    Math.min(...group.map((reach) => Math.min(along(reach, mark), reach.length - along(reach, mark))));
  return marks
    .filter((mark) => group.every((reach) => reach.reaches(mark)))
    .reduce((best, mark) => (room(mark) > room(best) + 1e-9 ? mark : best));
}

function fewestAngles(reaches: readonly Reach[]): number[] {
  if (reaches.length === 0) return [];
  let best: Reach[][] | null = null;
  for (const first of reaches) {
    const groups = sweepFrom(inCycle(first.from + first.length), reaches);
    if (!best || groups.length < best.length) best = groups;
  }
  return best!.map(middleOfAll).sort(byAngle);
}

/** Stops at `cut`, then sweeps on: at each arc's end, stop if its point was not reached yet. */
function sweepFrom(cut: number, reaches: readonly Reach[]): Reach[][] {
  const groups = [reaches.filter((reach) => reach.reaches(cut))];
  const rest = reaches
    .filter((reach) => !reach.reaches(cut))
    .map((reach) => ({ reach, start: inCycle(reach.from - cut) }))
    .sort((a, b) => a.start + a.reach.length - (b.start + b.reach.length));
  let at = -1;
  for (const { reach, start } of rest) {
    if (start > at + 1e-9) {
      at = start + reach.length;
      groups.push([]);
    }
    groups.at(-1)!.push(reach);
  }
  return groups;
}

/** The middle of the widest arc that every member allows; all are known to share an angle. */
function middleOfAll(group: readonly Reach[]): number {
  let [start, width] = [group[0]!.from, -1];
  for (const { from } of group) {
    if (!group.every((reach) => reach.reaches(from))) continue;
    const shared = Math.min(...group.map((reach) => reach.length - along(reach, from)));
    if (shared > width) [start, width] = [from, shared];
  }
  const middle = inCycle(start + Math.max(0, width) / 2);
  const rounded = inCycle(Math.round(middle));
  return group.every((reach) => reach.reaches(rounded)) ? rounded : middle;
}

function along(reach: Reach, angle: number): number {
  const into = inCycle(angle - reach.from);
  return CYCLE - into < 1e-9 ? 0 : into;
}

function inTurningOrder(angles: readonly number[], reaches: readonly Reach[]): CrankStop[] {
  const done = new Set<string>();
  return angles.map((angle, index) => {
    const points = reaches.filter(({ key, reaches: at }) => !done.has(key) && at(angle));
    points.forEach(({ key }) => done.add(key));
    return {
      angle,
      turn: index === 0 ? 0 : angle - angles[index - 1]!,
      points: points.map(({ key }) => key),
    };
  });
}
