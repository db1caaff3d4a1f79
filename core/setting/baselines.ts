import { mmFromTenths, tenthsFromMm } from '../length/index.ts';

/** Within this of a boundary a length lies on it; mm. */
const ON_BOUNDARY = 1e-9;

/** Measured with no shim in; lengths in mm. */
export interface BareFitInput {
  readonly lo: number;
  readonly hi: number;
  /** how much lower a shim's seat lies than what was measured against */
  readonly seatOffset: number;
  readonly target: number;
  readonly sizes: readonly number[];
}

/** The shim a bare gap wants, the size nearest to it, and what that leaves. */
export interface BareFit {
  readonly needed: number;
  readonly pick: number;
  readonly lo: number;
  readonly hi: number;
}

/**
 * Works out the shim for a point that was measured with none in.
 *
 * Rule: with the known offset of its seat a bare gap says what thickness fills it to the target; of two sizes equally near the
 * thinner, which leaves the looser gap.
 *
 * @throws RangeError where no size is made
 * @example bareFit({ lo: 2.33, hi: 2.35, seatOffset: 0.43, target: 0.15, sizes: [2.6, 2.65] }).pick // 2.6
 */
export function bareFit({ lo, hi, seatOffset, target, sizes }: BareFitInput): BareFit {
  if (sizes.length === 0) throw new RangeError('sizes must not be empty');
  const needed = (lo + hi) / 2 + seatOffset - target;
  const pick = nearestOf(sizes, needed);
  return { needed, pick, lo: lo + seatOffset - pick, hi: hi + seatOffset - pick };
}

/** The size nearest a thickness; the thinner of two equally near. */
function nearestOf(sizes: readonly number[], wanted: number): number {
  return sizes
    .toSorted((a, b) => a - b)
    .reduce((best, size) => (Math.abs(size - wanted) < Math.abs(best - wanted) - ON_BOUNDARY ? size : best));
}

/** A seat's offset found with one shim whose thickness is known; mm. */
export interface SeatOffsetInput {
  readonly bareGap: number;
  readonly knownShim: number;
  readonly clearanceWithShim: number;
}

/**
 * Finds how much lower a shim's seat lies than what a bare gap is measured against. It differs from valve to valve.
 *
 * @example seatOffset({ bareGap: 2.05, knownShim: 2.55, clearanceWithShim: 0.22 }).seatOffset // 0.72
 */
export function seatOffset({ bareGap, knownShim, clearanceWithShim }: SeatOffsetInput) {
  return {
    seatOffset: mmFromTenths(
      tenthsFromMm(knownShim) + tenthsFromMm(clearanceWithShim) - tenthsFromMm(bareGap),
    ),
  };
}

/**
 * Says which figures a gap measured with no shim in is likely to be, so that one typed wrongly is still asked about.
 *
 * @param offset how much lower a shim's seat lies; mm
 * @example bareBand({ sizes: { from: 2, to: 3.2 }, offset: 0.3, limits: { min: 0.1, max: 0.2 } }) // { min: 1.8, max: 3.1 }
 */
export function bareBand({
  sizes,
  offset,
  limits,
}: {
  readonly sizes: { readonly from: number; readonly to: number };
  readonly offset: number;
  readonly limits: { readonly min: number; readonly max: number };
}) {
  const sum = (...lengths: readonly number[]) =>
    mmFromTenths(lengths.reduce((all, mm) => all + tenthsFromMm(mm), 0));
  return {
    min: Math.max(0.05, sum(sizes.from, -offset, limits.min)),
    max: Math.max(0.1, sum(sizes.to, -offset, limits.max)),
  };
}

/** A point with the gap it has with no shim in, and its limits; mm. */
export interface BaselinePoint {
  readonly key: string;
  readonly lo: number;
  readonly hi: number;
  readonly min: number;
  readonly max: number;
  /** see `pieceGain`; 1 if absent */
  readonly gain?: number | undefined;
}

/** What one size would leave at a point whose gap is known as if nothing were in; mm. */
const left = ({ lo, hi, gain = 1 }: Pick<BaselinePoint, 'lo' | 'hi' | 'gain'>, size: number) => ({
  lo: gain * (lo - size),
  hi: gain * (hi - size),
});

/**
 * Lists the points whose valve an equal size would hold open: it is not turned over with that in.
 *
 * @example heldOpenBy([{ key: '1I', lo: 2.3, hi: 2.4 }], 2.35) // ['1I']
 */
export function heldOpenBy(
  points: readonly Pick<BaselinePoint, 'key' | 'lo' | 'hi' | 'gain'>[],
  size: number,
): readonly string[] {
  return points.filter((point) => left(point, size).lo < -ON_BOUNDARY).map(({ key }) => key);
}

/** Which one size is to be fitted everywhere, so that every gap can be measured; mm. */
export interface BaselineShimInput {
  readonly points: readonly BaselinePoint[];
  readonly sizes: readonly number[];
  /** what the bench's blades can measure, ends included */
  readonly measurable: { readonly from: number; readonly to: number };
}

/** The size proposed, how many points it lets be measured and brings in, and which it leaves unmeasured. */
export interface BaselineShim {
  readonly pick: number;
  readonly measurable: number;
  readonly inSpec: number;
  readonly unmeasurable: readonly string[];
}

/**
 * Proposes one equal shim for every point of a fresh head.
 *
 * Rule: a size that would hold any valve open is not turned over; of the others the one with which most gaps can be measured,
 * then most are in spec as they stand, then the thinner. Where no size is free the thinnest is proposed.
 *
 * @throws RangeError where there is no point, or no size is made
 * @example baselineShim(given('baseline-shim')).pick // 2.5
 */
export function baselineShim({ points, sizes, measurable }: BaselineShimInput): BaselineShim {
  if (points.length === 0) throw new RangeError('points must not be empty');
  if (sizes.length === 0) throw new RangeError('sizes must not be empty');
  const within = (size: number, from: number, to: number, point: BaselinePoint) => {
    const { lo, hi } = left(point, size);
    return lo >= from - ON_BOUNDARY && hi <= to + ON_BOUNDARY;
  };
  const all = sizes
    .toSorted((a, b) => a - b)
    .map((pick) => ({
      pick,
      free: heldOpenBy(points, pick).length === 0,
      measured: points.filter((point) => within(pick, measurable.from, measurable.to, point)).length,
      inSpec: points.filter((point) => within(pick, point.min, point.max, point)).length,
    }));
  const best =
    all
      .filter(({ free }) => free)
      // sorted is stable: of equal ones the thinner stays first
      .sort((a, b) => b.measured - a.measured || b.inSpec - a.inSpec)[0] ?? all[0]!;
  return {
    pick: best.pick,
    measurable: best.measured,
    inSpec: best.inSpec,
    unmeasurable: points
      .filter((point) => !within(best.pick, measurable.from, measurable.to, point))
      .map(({ key }) => key),
  };
}

/**
 * Names the size to try at one point that a baseline leaves unmeasured: the one with which its forecast gap lies in what the
 * bench can measure, the thickest of those; where none does, the thickest that leaves its gap open at all.
 *
 * @returns null where every size would hold the valve open
 * @example sizeToMeasure({ key: '3E', lo: 2.1, hi: 2.2, min: 0.2, max: 0.3 }, [1.9, 2, 2.2], { from: 0.05, to: 0.5 }) // 2
 */
export function sizeToMeasure(
  point: Pick<BaselinePoint, 'lo' | 'hi' | 'gain'>,
  sizes: readonly number[],
  measurable: BaselineShimInput['measurable'],
): number | null {
  const free = sizes.filter((size) => left(point, size).lo > ON_BOUNDARY);
  const within = free.filter((size) => {
    const { lo, hi } = left(point, size);
    return lo >= measurable.from - ON_BOUNDARY && hi <= measurable.to + ON_BOUNDARY;
  });
  const best = within.length > 0 ? within : free;
  return best.length > 0 ? Math.max(...best) : null;
}

/** A chart as makers print it: clearances measured down, shims installed across; mm. */
export interface ShimChartInput {
  readonly spec: { readonly min: number; readonly max: number };
  readonly target: number;
  readonly sizes: readonly number[];
  readonly installed: readonly number[];
  readonly clearances: readonly { readonly from: number; readonly to: number }[];
  /** see `pieceGain`; 1 if absent */
  readonly gain?: number | undefined;
}

/** For each range of clearances, and each shim installed: the size to fit, `keep`, or nothing where none brings it in. */
export interface ShimChart {
  readonly rows: readonly (readonly (number | 'keep' | null)[])[];
}

/**
 * Draws up a chart of which shim to fit, in the form that makers print.
 *
 * Rule: a range that lies wholly in spec is kept; of the sizes the one that leaves the range's middle nearest the target, the
 * thinner of two; nothing where that is still out of spec.
 *
 * @example shimChart(given('shim-chart')).rows[0].slice(0, 3) // [null, 2.3, 2.35]
 */
export function shimChart(input: ShimChartInput): ShimChart {
  const { spec, target, sizes, installed, clearances, gain = 1 } = input;
  if (sizes.length === 0) throw new RangeError('sizes must not be empty');
  const inSpec = (gap: number) => gap >= spec.min - ON_BOUNDARY && gap <= spec.max + ON_BOUNDARY;
  return {
    rows: clearances.map(({ from, to }) => {
      if (inSpec(from) && inSpec(to)) return installed.map(() => 'keep' as const);
      const middle = (from + to) / 2;
      return installed.map((isIn) => {
        const size = nearestOf(sizes, isIn + (middle - target) / gain);
        return inSpec(middle + gain * (isIn - size)) ? size : null;
      });
    }),
  };
}

/**
 * Lays out a chart for one role of a pattern: the band as one row, and rows as wide as the step between sizes under it, down to
 * nothing, and over it as far as the sizes reach twice their step.
 *
 * @param input limits, target, step and sizes in mm; `over` rows above the band
 * @example chartOf({ spec: { min: 0.1, max: 0.2 }, target: 0.15, step: 0.05, sizes: [2.4, 2.45], over: 4 }).clearances[2] // the band
 */
export function chartOf(input: {
  readonly spec: { readonly min: number; readonly max: number };
  readonly target: number;
  readonly step: number;
  readonly sizes: readonly number[];
  readonly over?: number;
  readonly gain?: number;
}): ShimChart & { readonly clearances: ShimChartInput['clearances']; readonly installed: readonly number[] } {
  const { spec, target, step, sizes, over = 8, gain = 1 } = input;
  const [min, max, by] = [tenthsFromMm(spec.min), tenthsFromMm(spec.max), tenthsFromMm(step)];
  const under = Array.from({ length: Math.ceil(min / by) }, (_, index) => ({
    from: Math.max(0, min - (index + 1) * by),
    to: min - index * by,
  })).reverse();
  const above = Array.from({ length: over }, (_, index) => ({
    from: max + index * by,
    to: max + (index + 1) * by,
  }));
  const clearances = [...under, { from: min, to: max }, ...above].map(({ from, to }) => ({
    from: mmFromTenths(from),
    to: mmFromTenths(to),
  }));
  return {
    clearances,
    installed: sizes,
    ...shimChart({ spec, target, sizes, installed: sizes, clearances, gain }),
  };
}
