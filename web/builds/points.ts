import type { BuildView, SheetGoneBy } from './buildView.ts';
import type { ReadingRow, Round } from '@zero-lash/contract/measuring';
import type { Setting } from '@zero-lash/contract/setting';
import { formatLength, tenthsFromMm, type ShopUnit } from '@zero-lash/core/length';
import { lashPoints, pieceUnit, type LashPoint, type Pattern } from '@zero-lash/core/sheets';
import { gearAt, marginOf, mayMeasurePoint, spannedPoints } from '@zero-lash/core/turning';
import {
  findingsNow,
  newestRound,
  provenBy,
  stageMeasuring,
  stageOf,
  type StageKey,
} from '@zero-lash/core/builds';
import { limitsFromMm, specOf, whyNoProof, type Interval, type Limits } from '@zero-lash/core/measuring';
import { leftOfLook } from '@zero-lash/core/rechecks';
import type { StopProgress } from '@zero-lash/core/turning';
import type { HeadPoint } from '../drawings/HeadMap.tsx';
import type { PointState } from '../drawings/states.ts';

/** A lash point with its limits in mm. */
export interface LimitedPoint extends LashPoint {
  readonly min: number;
  readonly max: number;
  /** mm, taken over the greatest */
  readonly allowOver: number;
  /** what it is judged by, allowance inside; tenths of a micrometre */
  readonly limits: Limits;
  /** the ends it may lie between, allowance inside: what blades are chosen by; mm */
  readonly spec: { readonly min: number; readonly max: number };
  /** the limits as the source prints them; empty where nobody wrote that down */
  readonly asWritten: string;
  /** the unit its pieces are stamped in */
  readonly stamped: ShopUnit;
}

/** Every lash point of a sheet with its limits; worked out once for each sheet. */
export function limitedPoints(sheet: SheetGoneBy): readonly LimitedPoint[] {
  let points = limited.get(sheet);
  if (!points) {
    points = lashPoints(sheet.pattern).map((point) => {
      const limits = sheet.limits.find(({ role }) => role === point.role)!;
      const { min, max, allowOver = 0, aimedOutside = false } = limits;
      // what the source prints says nothing of a band that lies about another aim
      const asWritten = aimedOutside ? '' : limits.asWritten;
      const judged = limitsFromMm({ min, max, allowOver });
      return {
        ...{ ...point, min, max, allowOver, asWritten },
        ...{ limits: judged, spec: specOf(judged), stamped: pieceUnit(sheet.pattern, point.role) },
      };
    });
    limited.set(sheet, points);
  }
  return points;
}

const limited = new WeakMap<SheetGoneBy, readonly LimitedPoint[]>();

/**
 * The round whose readings belong to a stage: what is measured there, or what there is to go by. Where a point is set, that
 * is its newest finding, whichever round it was made in.
 */
export function roundOfStage(build: BuildView, stage: StageKey): Round | undefined {
  const { shows } = stageOf(stage);
  const newest = (kind: Round['kind']) => newestRound(build.rounds, kind);
  if (shows === null) return undefined;
  const last = shows === 'recheck' ? (newest('recheck') ?? newest('proved')) : undefined;
  if (last?.kind === 'recheck') return last;
  if (shows === 'as-found') return newest(shows);
  if (shows !== 'finding') {
    const proving = newest('proved');
    return proving && { ...proving, readings: [...standingAt(build, proving).values()] };
  }
  const base = newest('as-set') ?? newest('proved') ?? newest('as-found');
  return base && { ...base, readings: [...findingsNow(build, 'before-lock').values()] };
}

/** What stands at each point at proving: what the newest round says of it, or what proves it from an earlier one. */
function standingAt(build: BuildView, proving: Round): ReadonlyMap<string, ReadingRow> {
  const standing = new Map(provenBy(build));
  for (const reading of proving.readings)
    if (!standing.has(reading.point)) standing.set(reading.point, reading);
  return standing;
}

/** What a reading proves, as the core reckons with it: in tenths of a micrometre. */
export function gapInTenths({ lo, hi, floor }: Pick<ReadingRow, 'lo' | 'hi' | 'floor'>): Interval {
  return { lo: tenthsFromMm(lo), hi: hi === null ? null : tenthsFromMm(hi), floor };
}

/** Whether a round is the one that readings may be added to now. */
export function isOpenRound(build: BuildView, round: Round | undefined): boolean {
  if (!round || round.closedAt || build.closedAt) return false;
  return stageMeasuring(round.kind).key === build.stage;
}

/** What a point is, by the reading that stands there: its verdict, or why that reading proves nothing. */
export function stateOf(
  reading: ReadingRow | undefined,
  changed: string | null,
  /** from when on a reading counts here, where that is later than what was changed */
  counts: string | null = null,
): PointState {
  if (!reading) return 'not-measured';
  const why = whyNoProof(reading, changed) ?? (whyNoProof(reading, counts) === null ? null : 'before-turns');
  return why === 'withdrawn' ? 'not-measured' : (why ?? reading.verdict);
}

/** What the head map shows for a round's readings. */
export function headPoints(
  points: readonly (LashPoint & { readonly stamped?: ShopUnit })[],
  round: (Round & { readonly waiting?: ReadonlySet<string> }) | undefined,
  figure: (mm: number) => string,
  done: ReadonlySet<string>,
  /** what was last changed at a point, as far as that bears on this round */
  changed: LastChange,
  closed: ReadonlySet<string> | null = null,
  aside: ReadonlySet<string> = new Set(),
): Record<string, HeadPoint> {
  return Object.fromEntries(
    points.map(({ key, stamped = 'mm' }) => {
      const reading = readingAt(round, key);
      const change = changed(key);
      const known = stateOf(reading, change?.at ?? null, change?.counts ?? null);
      // with nothing in a gap is neither tight nor loose, however wide
      const state = aside.has(key) ? 'passed-over' : change?.kind === 'bare' ? 'bare' : known;
      return [
        key,
        {
          state,
          ...(known === 'changed-since' ? pieceIn(change, stamped) : gapIn(reading, figure)),
          done: done.has(key) ? 'set' : undefined,
          closed: closed?.has(key),
          waiting: round?.waiting?.has(key),
        },
      ];
    }),
  );
}

/** What was last done that bears on a point: the piece that was fitted there, if any was. */
export type Change = Pick<Setting, 'fitted' | 'kind'> & {
  /** null where nothing was changed */
  readonly at: string | null;
  /** from when on a reading counts: after the two turns at proving */
  readonly counts?: string;
};

/** What was last changed, as far as it bears on a point; null where nothing was, or where it does not bear on what is shown. */
export type LastChange = (key: string) => Change | null;

/** The piece that was fitted, where the gap it leaves is not known yet. */
function pieceIn(change: Change | null, stamped: ShopUnit): Pick<HeadPoint, 'piece'> {
  return change?.fitted ? { piece: formatLength(tenthsFromMm(change.fitted), stamped) } : {};
}

/**
 * Where a gap is, if at all, too wide, or nothing bounds it from below, its greater end says most; otherwise the lesser one does:
 * tight is the dangerous side.
 */
function gapIn(reading: ReadingRow | undefined, figure: (mm: number) => string): Pick<HeadPoint, 'gap'> {
  if (!reading) return {};
  const { lo, hi, floor, verdict } = reading;
  if (floor === false && hi !== null) return { gap: { lo: null, hi: figure(hi), governs: 'hi' } };
  const wide = hi !== null && (verdict === 'loose' || verdict === 'undecided-high');
  return { gap: { lo: figure(lo), hi: hi === null ? '…' : figure(hi), governs: wide ? 'hi' : 'lo' } };
}

/** The newest reading of a point in a round. */
export function readingAt(round: Round | undefined, key: string): ReadingRow | undefined {
  return round?.readings.find(({ point }) => point === key);
}

/** States that a measurement ends: nothing is known, or what is known proves nothing. */
const TO_MEASURE: ReadonlySet<PointState> = new Set([
  'not-measured',
  'off-base',
  'before-lock',
  'before-turns',
]);

/**
 * The points at which nothing is left to be done: measured as they are now; where points are set, in their band as well, or
 * left alone.
 *
 * @param leftAlone points left alone on purpose, where points are set; null where they are only measured
 */
export function settledPoints(
  points: readonly LashPoint[],
  round: Round | undefined,
  changed: LastChange,
  leftAlone: ReadonlySet<string> | null,
): ReadonlySet<string> {
  const settled = ({ key }: LashPoint) => {
    const change = changed(key);
    const state = stateOf(readingAt(round, key), change?.at ?? null, change?.counts ?? null);
    if (leftAlone) return state === 'in-spec' || leftAlone.has(key);
    return state !== 'changed-since' && !TO_MEASURE.has(state);
  };
  return new Set(points.filter(settled).map(({ key }) => key));
}

/** How many of a recheck's points are still to be measured: those of a short look, or of the whole head once one does not hold. */
export function leftToMeasure(
  points: readonly LashPoint[],
  round: Round | undefined,
  look: readonly string[] | null,
): number {
  return leftOfLook(
    points.map(({ key }) => key),
    look,
    provingIn(points, round),
  ).length;
}

/** The newest reading of each point of a round, where it proves anything. */
function provingIn(points: readonly LashPoint[], round: Round | undefined): ReadingRow[] {
  return points.flatMap(({ key }) => {
    const reading = readingAt(round, key);
    return reading && !TO_MEASURE.has(stateOf(reading, null)) ? [reading] : [];
  });
}

/** The points that a short look passes over, as far as it holds; none of any other round. */
export function passedOver(
  points: readonly LashPoint[],
  round: Round | undefined,
  rechecks: BuildView['rechecks'],
): ReadonlySet<string> {
  const look = rechecks.find(({ id }) => id === round?.recheckId)?.points;
  if (!look) return new Set();
  const all = points.map(({ key }) => key);
  const read = provingIn(points, round);
  const asked = new Set([...leftOfLook(all, look, read), ...read.map(({ point }) => point)]);
  return new Set(all.filter((key) => !asked.has(key)));
}

/** The next point without a reading that proves anything after one, round the end; null when every point has one. */
export function nextUnmeasured(
  points: readonly LashPoint[],
  round: Round | undefined,
  after: string,
): string | null {
  const start = points.findIndex(({ key }) => key === after);
  const ordered = [...points.slice(start + 1), ...points.slice(0, start)];
  return ordered.find(({ key }) => TO_MEASURE.has(stateOf(readingAt(round, key), null)))?.key ?? null;
}

/** The points that may be measured with the crank at an angle; null where nobody has said where it stands. */
export function closedAt(pattern: Pattern, angle: number | null): ReadonlySet<string> | null {
  if (angle === null) return null;
  const gear = gearAt(spannedPoints(pattern), marginOf(pattern), angle);
  return new Set(
    gear.filter(({ key, closed }) => closed || mayMeasurePoint(pattern, key, angle)).map(({ key }) => key),
  );
}

/**
 * The point to measure after one: what is left at the stop the plan is at, then what waits at the next one, so that nobody
 * walks into another stop's points by going on; where no stop has any, the next one in order.
 */
export function nextToMeasure(
  points: readonly LashPoint[],
  round: Round | undefined,
  after: string,
  { here, next }: Pick<StopProgress, 'here' | 'next'>,
): string | null {
  const waiting = [here, next].map((standing) => standing?.left.filter((key) => key !== after) ?? []);
  const stop = waiting.find((left) => left.length > 0);
  if (!stop) return nextUnmeasured(points, round, after);
  const from = points.findIndex(({ key }) => key === after);
  const order = [...points.slice(from + 1), ...points.slice(0, from)].map(({ key }) => key);
  return order.find((key) => stop.includes(key)) ?? null;
}
