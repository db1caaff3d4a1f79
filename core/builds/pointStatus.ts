import { whyNoProof, type NoProof, type ReadingState, type Verdict } from '../measuring/index.ts';
import { leftOfLook } from '../rechecks/index.ts';
import type { LashPoint } from '../sheets/index.ts';
import type { StopProgress } from '../turning/index.ts';
import type { RoundState } from './buildState.ts';

/** What a lash point is by what was read there: a verdict, nothing measured yet, or why what was read proves nothing. */
export type PointStatus = Verdict | Exclude<NoProof, 'withdrawn'> | 'not-measured' | 'before-turns';

/** What was last done that bears on what a point is. */
export interface BearingChange {
  /** when; null where nothing was changed */
  readonly at: string | null;
  /** from when on a reading counts, where that is later: after the two turns at proving */
  readonly counts?: string;
}

/** What was last changed, as far as it bears on a point; null where nothing was, or where it does not bear on what is shown. */
export type ChangeAt = (key: string) => BearingChange | null;

/**
 * Says what a point is, by the reading that stands there: its verdict, or why that reading proves nothing.
 *
 * @param reading what stands there; undefined where nothing was read
 * @param change what was last done that bears on it; null where nothing was
 * @example pointStatus(undefined, null) // 'not-measured'
 */
export function pointStatus(
  reading: Omit<ReadingState, 'point'> | undefined,
  change: BearingChange | null,
): PointStatus {
  if (!reading) return 'not-measured';
  const why =
    whyNoProof(reading, change?.at ?? null) ??
    (whyNoProof(reading, change?.counts ?? null) === null ? null : 'before-turns');
  return why === 'withdrawn' ? 'not-measured' : (why ?? reading.verdict);
}

/**
 * Finds the reading that stands at a point in a round.
 *
 * @example readingAt(round, '1I')?.verdict
 */
export function readingAt<Round extends RoundState>(
  round: Round | undefined,
  key: string,
): Round['readings'][number] | undefined {
  return round?.readings.find(({ point }) => point === key);
}

/** States that a measurement ends: nothing is known, or what is known proves nothing. */
const TO_MEASURE: ReadonlySet<PointStatus> = new Set([
  'not-measured',
  'off-base',
  'before-lock',
  'before-turns',
]);

type Points = readonly Pick<LashPoint, 'key'>[];

/**
 * Finds the points at which nothing is left to be done: measured as they are now; where points are set, in their band as well, or
 * left alone.
 *
 * @param leftAlone points left alone on purpose, where points are set; null where they are only measured
 * @example settledPoints(points, round, () => null, null).has('1I')
 */
export function settledPoints(
  points: Points,
  round: RoundState | undefined,
  changed: ChangeAt,
  leftAlone: ReadonlySet<string> | null,
): ReadonlySet<string> {
  const settled = ({ key }: Points[number]) => {
    const status = pointStatus(readingAt(round, key), changed(key));
    if (leftAlone) return status === 'in-spec' || leftAlone.has(key);
    return status !== 'changed-since' && !TO_MEASURE.has(status);
  };
  return new Set(points.filter(settled).map(({ key }) => key));
}

/**
 * Counts the points of a recheck that are still to be measured: those of a short look, or of the whole head once one does not hold.
 *
 * @param look the points of a short look; null where every point is measured
 * @example leftToMeasure(points, round, ['1I', '2I']) // 2 before the first reading
 */
export function leftToMeasure(
  points: Points,
  round: RoundState | undefined,
  look: readonly string[] | null,
): number {
  return leftOfLook(
    points.map(({ key }) => key),
    look,
    provingIn(points, round),
  ).length;
}

/** The reading of each point of a round, where it proves anything. */
function provingIn(points: Points, round: RoundState | undefined): readonly ReadingState[] {
  return points.flatMap(({ key }) => {
    const reading = readingAt(round, key);
    return reading && !TO_MEASURE.has(pointStatus(reading, null)) ? [reading] : [];
  });
}

/**
 * Finds the points that a short look passes over, as far as it holds; none of any other round.
 *
 * @param rechecks of the build, each with the points of its look
 * @example passedOver(points, { ...round, recheckId: 'look' }, [{ id: 'look', points: ['1I'] }]).has('3E')
 */
export function passedOver(
  points: Points,
  round: (RoundState & { readonly recheckId: string | null }) | undefined,
  rechecks: readonly { readonly id: string; readonly points: readonly string[] | null }[],
): ReadonlySet<string> {
  const look = rechecks.find(({ id }) => id === round?.recheckId)?.points;
  if (!look) return new Set();
  const all = points.map(({ key }) => key);
  const read = provingIn(points, round);
  const asked = new Set([...leftOfLook(all, look, read), ...read.map(({ point }) => point)]);
  return new Set(all.filter((key) => !asked.has(key)));
}

/**
 * Finds the next point without a reading that proves anything after one, round the end; null when every point has one.
 *
 * @example nextUnmeasured(points, round, '1I') // '1E'
 */
export function nextUnmeasured(points: Points, round: RoundState | undefined, after: string): string | null {
  const start = points.findIndex(({ key }) => key === after);
  const ordered = [...points.slice(start + 1), ...points.slice(0, start)];
  return ordered.find(({ key }) => TO_MEASURE.has(pointStatus(readingAt(round, key), null)))?.key ?? null;
}

/**
 * Finds the point to measure after one: what is left at the stop the plan is at, then what waits at the next one, so that nobody
 * walks into another stop's points by going on; where no stop has any, the next one in order.
 *
 * @example nextToMeasure(points, round, '1I', { here: null, next: null }) // '1E'
 */
export function nextToMeasure(
  points: Points,
  round: RoundState | undefined,
  after: string,
  { here, next }: Pick<StopProgress, 'here' | 'next'>,
): string | null {
  const waiting = [here, next].map((stop) => stop?.left.filter((key) => key !== after) ?? []);
  const left = waiting.find((each) => each.length > 0);
  if (!left) return nextUnmeasured(points, round, after);
  const from = points.findIndex(({ key }) => key === after);
  const order = [...points.slice(from + 1), ...points.slice(0, from)].map(({ key }) => key);
  return order.find((key) => left.includes(key)) ?? null;
}
