// Long because a plan is one thing: which points are touched, what each may take, what that costs, and what comes of it.
import { mmFromTenths, tenthsFromMm } from '../length/index.ts';
import { whyUnknown, type KnownGap } from '../measuring/index.ts';
import { leastAssignment, type Cost } from './assignment.ts';
import {
  guardedBand,
  ON_BOUNDARY,
  pieceOutcome,
  type PieceBand,
  type PieceOutcome,
  type PieceStatus,
} from './pieceOutcome.ts';

/** A point as it was measured, with the shim that is in and its limits; mm. */
export interface PlanPoint extends KnownGap {
  readonly key: string;
  readonly installed: number;
  readonly min: number;
  readonly max: number;
  readonly target: number;
  /** how much its gap changes where it is measured for a change of its shim: 1 on a bucket */
  readonly gain?: number | undefined;
  /** its shim is out already and in under another valve: it has none to keep or to give */
  readonly gone?: boolean | undefined;
}

/** Which points a plan may touch. */
export type PlanChange =
  | { readonly rule: 'out-of-spec' }
  | { readonly rule: 'off-target'; readonly by: number }
  | { readonly rule: 'all' };

/** What there is to plan with. Lengths in mm. */
export interface ShimPlanInput {
  readonly points: readonly PlanPoint[];
  readonly stock: readonly { readonly thickness: number; readonly qty: number }[];
  /** any number of each; one without a price costs 1, never nothing */
  readonly orderable: readonly { readonly thickness: number; readonly price?: number | undefined }[];
  readonly change: PlanChange;
  /** a shim taken out of one point may go into another; it may where this is left out */
  readonly reuseRemoved?: boolean | undefined;
  /** how far inside the band the plan keeps, a quarter of it at the most */
  readonly guard?: number | undefined;
  /** points that are not touched, whatever they read */
  readonly keep?: readonly string[] | undefined;
  /** thicknesses that must not be used at a point */
  readonly without?: readonly { readonly key: string; readonly thickness: number }[] | undefined;
}

/** What a point gets, and what that leaves; mm, null where nothing is assigned. */
export interface PlanAssignment {
  readonly key: string;
  readonly touched: boolean;
  readonly source: 'keep' | 'removed' | 'stock' | 'order' | 'none';
  /** the point that the shim is taken out of */
  readonly from?: string;
  readonly thickness: number | null;
  readonly lo: number | null;
  readonly hi: number | null;
  readonly status: PieceStatus;
}

/** A plan with its totals over the points it touches, what is to be bought, and what is left over. */
export interface ShimPlan {
  readonly totals: {
    readonly unsolved: number;
    readonly uncertain: number;
    readonly ordered: number;
    readonly price: number;
    /** mm, the distances of the middles from their targets */
    readonly deviation: number;
    readonly changed: number;
  };
  readonly assignments: readonly PlanAssignment[];
  readonly orders: readonly { readonly thickness: number; readonly qty: number; readonly price: number }[];
  /** shims that were taken out and go nowhere */
  readonly leftOver: readonly { readonly thickness: number; readonly from: string }[];
}

/** Deviations are added and compared as whole figures of this many a tenth of a micrometre, prices of so many a unit. */
const WHOLE = 1e5;

/** A point in tenths of a micrometre, its band narrowed by the guard. */
interface Point {
  readonly key: string;
  readonly lo: number;
  readonly hi: number;
  readonly installed: number;
  readonly band: PieceBand;
  readonly gain: number;
  readonly gone: boolean;
  readonly without: ReadonlySet<number>;
  readonly outcomes: Map<number, PieceOutcome>;
}

interface Option {
  readonly source: PlanAssignment['source'];
  readonly from?: string;
  readonly thickness: number | null;
  readonly price: number;
}

const NOTHING: Option = { source: 'none', thickness: null, price: 0 };

/**
 * Plans which shims to fit, over all points at once: fewest left unsolved, then fewest that are only likely, then least money,
 * then least distance from the targets, then fewest bought, then fewest changed. Exact: a shim that is already in the engine
 * under another valve is found wherever that is best.
 *
 * Rule: what a shim leaves is `pieceOutcome`, kept inside the band by the guard.
 *
 * @throws RangeError where a point is not known well enough to plan by (no blade went, open, contradictory), is named twice, or a point that is not there is kept or barred from a thickness
 * @example shimPlan(given('shim-plan')).totals.price // 18
 */
export function shimPlan(input: ShimPlanInput): ShimPlan {
  const points = pointsOf(input);
  const kept = new Set(input.keep ?? []);
  const touched = points.filter(
    (point) => point.gone || (!kept.has(point.key) && isTouched(point, input.change)),
  );
  const shared = sharedOptions(touched, input);
  const rows = touched.map((point) => {
    const own = privateOption(point, input);
    const choices = shared.map((option) => (mayTake(point, option, input) ? asTaken(point, option) : null));
    return { point, own, choices };
  });
  const costs = rows.map(({ point, own, choices }, row) => [
    ...choices.map((option) => option && costOf(point, option)),
    ...rows.map((_, other) => (other === row ? costOf(point, own) : null)),
  ]);
  const columns = leastAssignment(costs);
  const taken = new Map(
    rows.map(({ point, own, choices }, row) => [point.key, choices[columns[row]!] ?? own] as const),
  );
  const assignments = points.map((point) => assignmentOf(point, taken.get(point.key)));
  return { ...sumUp(points, assignments, taken, shared, columns), assignments };
}

function pointsOf({ points, guard = 0, keep = [], without = [] }: ShimPlanInput): Point[] {
  const keys = new Set(points.map(({ key }) => key));
  if (keys.size < points.length) throw new RangeError('points: one key twice');
  const unknown = [...keep, ...without.map(({ key }) => key)].find((key) => !keys.has(key));
  if (unknown !== undefined) throw new RangeError(`keep or without: there is no point ${unknown}`);
  return points.map((point, index) => {
    const { key, lo, hi, installed, min, max, target, gain = 1, gone = false } = point;
    const why = whyUnknown(point);
    if (why) throw new RangeError(`points.${index}: ${MEASURED_FIRST[why]}`);
    return {
      key,
      lo: tenths(lo),
      hi: tenths(hi!),
      installed: tenths(installed),
      band: guardedBand({ min: tenths(min), max: tenths(max) }, tenths(target), tenths(guard)),
      gain,
      gone,
      outcomes: new Map(),
      without: new Set(without.filter((one) => one.key === key).map(({ thickness }) => tenths(thickness))),
    };
  });
}

const MEASURED_FIRST = {
  'no-blade': 'no blade went; it is measured first',
  open: 'nothing bounds it from above; it is measured first',
  conflict: 'hi must not be below lo',
} as const;

const tenths = (mm: number): number => tenthsFromMm(mm);

/** What a shim would do at a point; worked out once for each thickness, of which a drawer has many alike. */
function outcome(point: Point, thickness: number): PieceOutcome {
  let known = point.outcomes.get(thickness);
  if (!known) {
    known = pieceOutcome(point, thickness, point.band);
    point.outcomes.set(thickness, known);
  }
  return known;
}

function isTouched(point: Point, change: PlanChange): boolean {
  const { status, deviation } = outcome(point, point.installed);
  if (change.rule === 'all' || status !== 'certain') return true;
  return change.rule === 'off-target' && deviation > tenths(change.by) + ON_BOUNDARY;
}

/** What more than one point may take, each piece once: the shims that are in, and those in stock. */
function sharedOptions(touched: readonly Point[], { stock }: ShimPlanInput): Option[] {
  const isIn = touched
    .filter(({ gone }) => !gone)
    .map(({ key, installed }): Option => ({
      source: 'removed',
      from: key,
      thickness: installed,
      price: 0,
    }));
  const pieces = stock.flatMap(({ thickness, qty }) =>
    Array.from({ length: Math.min(qty, touched.length) }, (): Option => ({
      source: 'stock',
      thickness: tenths(thickness),
      price: 0,
    })),
  );
  return [...isIn, ...pieces];
}

function mayTake(point: Point, option: Option, { reuseRemoved = true }: ShimPlanInput): boolean {
  const { source, from, thickness } = option;
  if (source === 'removed' && from !== point.key && !reuseRemoved) return false;
  return (
    thickness !== null && !point.without.has(thickness) && outcome(point, thickness).status !== 'unsolved'
  );
}

/** A point that takes its own shim again keeps it. */
const asTaken = ({ key }: Point, option: Option): Option =>
  option.from === key ? { ...option, source: 'keep' } : option;

/** What a point may have whatever the others take: the best that can be bought for it, or nothing. */
function privateOption(point: Point, { orderable }: ShimPlanInput): Option {
  const bought = orderable
    .map(({ thickness, price = 1 }): Option => ({ source: 'order', thickness: tenths(thickness), price }))
    .filter((option) => mayTake(point, option, { reuseRemoved: true } as ShimPlanInput));
  return bought.reduce<Option>(
    (best, option) => (isCheaper(costOf(point, option), costOf(point, best)) ? option : best),
    NOTHING,
  );
}

/** What counts, in the order it counts in. */
function costOf(point: Point, { source, thickness, price }: Option): Cost {
  const changed = source === 'keep' ? 0 : 1;
  if (thickness === null) return [1, 0, 0, 0, 0, changed];
  const { status, deviation } = outcome(point, thickness);
  return [
    0,
    status === 'likely' ? 1 : 0,
    Math.round(price * WHOLE),
    Math.round(deviation * WHOLE),
    source === 'order' ? 1 : 0,
    changed,
  ];
}

function isCheaper(a: Cost, b: Cost): boolean {
  const at = a.findIndex((figure, index) => figure !== b[index]);
  return at >= 0 && a[at]! < b[at]!;
}

function assignmentOf(point: Point, option: Option | undefined): PlanAssignment {
  const { source, from, thickness } = option ?? {
    source: 'keep' as const,
    from: undefined,
    thickness: point.installed,
  };
  const touched = option !== undefined;
  if (thickness === null)
    return { key: point.key, touched, source, thickness, lo: null, hi: null, status: 'unsolved' };
  const { lo, hi, status } = outcome(point, thickness);
  return {
    key: point.key,
    touched,
    source,
    ...(source === 'removed' && from !== undefined ? { from } : {}),
    thickness: mmFromTenths(thickness),
    lo: lo / 10_000,
    hi: hi / 10_000,
    status,
  };
}

function sumUp(
  points: readonly Point[],
  assignments: readonly PlanAssignment[],
  taken: ReadonlyMap<string, Option>,
  shared: readonly Option[],
  columns: readonly number[],
): Omit<ShimPlan, 'assignments'> {
  const touched = assignments.filter((assignment) => assignment.touched);
  const ordered = [...taken.values()].filter(({ source }) => source === 'order');
  const costs = points.flatMap((point) => {
    const option = taken.get(point.key);
    return option ? [costOf(point, option)] : [];
  });
  const sum = (figure: number) => costs.reduce((all, cost) => all + cost[figure]!, 0);
  const used = new Set(columns);
  return {
    totals: {
      unsolved: touched.filter(({ status }) => status === 'unsolved').length,
      uncertain: touched.filter(({ status }) => status === 'likely').length,
      ordered: ordered.length,
      price: sum(2) / WHOLE,
      deviation: sum(3) / WHOLE / 10_000,
      changed: touched.filter(({ source }) => source !== 'keep').length,
    },
    orders: [...new Set(ordered.map(({ thickness }) => thickness!))]
      .sort((a, b) => a - b)
      .map((thickness) => {
        const same = ordered.filter((option) => option.thickness === thickness);
        return { thickness: mmFromTenths(thickness), qty: same.length, price: same[0]!.price };
      }),
    leftOver: shared.flatMap(({ source, from, thickness }, index) =>
      source === 'removed' && !used.has(index) ? [{ thickness: mmFromTenths(thickness!), from: from! }] : [],
    ),
  };
}
