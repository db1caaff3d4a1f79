// Long because each feature's figures, its rule and its grade stand together: what is measured differs for every one.
import {
  gradeOf,
  gradeOfLimit,
  isUnder,
  shareOfLimit,
  shareUsed,
  worstOf,
  type Grade,
  type WearLimits,
} from './grade.ts';

/** The least of several figures. */
export const least = (figures: readonly number[]) => Math.min(...figures);
/** The greatest of several figures. */
export const greatest = (figures: readonly number[]) => Math.max(...figures);
/** How far several figures lie apart. */
export const spreadOf = (figures: readonly number[]) => greatest(figures) - least(figures);
/** The mean of several figures. */
export const meanOf = (figures: readonly number[]) =>
  figures.reduce((sum, one) => sum + one, 0) / figures.length;

/** A graded figure: the share of its allowance that is used, and what that comes to. */
export interface Graded {
  readonly used: number;
  readonly verdict: Grade;
}

const graded = (measured: number, limits: WearLimits): Graded => {
  const used = shareUsed(measured, limits);
  return { used, verdict: gradeOf(used) };
};

/** A lobe measured at stations along its width; mm. */
export interface LobeInput {
  readonly stations: readonly { readonly height: number; readonly base: number }[];
  readonly specLift: number;
  readonly minLift: number;
}

/** The lift that a lobe has left, at the station where that is least, and how far its stations differ; mm. */
export function lobeLift(stations: LobeInput['stations']) {
  const lifts = stations.map(({ height, base }) => height - base);
  return { lift: least(lifts), taper: spreadOf(lifts) };
}

/**
 * Grades a cam lobe by the lift it has left, at the station where that is least.
 *
 * Rule: lift is height over base circle; what a lobe has lost it has lost where it is lowest.
 *
 * @example lobe({ stations: [{ height: 36.501, base: 28 }], specLift: 8.62, minLift: 8.45 }).verdict // 'watch'
 */
export function lobe({ stations, specLift, minLift }: LobeInput) {
  const { lift, taper } = lobeLift(stations);
  return { lift, loss: specLift - lift, taper, ...graded(lift, { nominal: specLift, limit: minLift }) };
}

/** A journal measured in planes of two diameters at right angles, and its bore; mm. */
export interface JournalInput {
  readonly planes: readonly (readonly number[])[];
  readonly bore: readonly number[];
  readonly clearance: WearLimits;
  readonly ovalityLimit?: number | undefined;
  readonly taperLimit?: number | undefined;
}

/** How far from round a journal is in its worst plane, and how its planes differ; mm. */
export const journalForm = (planes: JournalInput['planes']) => ({
  ovality: greatest(planes.map(spreadOf)),
  taper: spreadOf(planes.map(meanOf)),
});

/** The least and the greatest clearance of one thing in another; under nothing where it does not go in. */
export const clearances = (outer: readonly number[], inner: readonly number[]) => ({
  clearanceMin: least(outer) - greatest(inner),
  clearanceMax: greatest(outer) - least(inner),
});

/**
 * Grades a journal in its bore by its greatest clearance, and by its ovality and taper where they have a limit.
 *
 * Rule: the clearance that counts is the widest bore over the least diameter. Bores are measured with their caps torqued.
 *
 * @example journal({ planes: [[26.97, 26.95], [26.96, 26.96]], bore: [27.0], clearance: { nominal: 0.03, limit: 0.1 } }).ovality // 0.02
 */
export function journal({ planes, bore, clearance, ovalityLimit, taperLimit }: JournalInput) {
  const { ovality, taper } = journalForm(planes);
  const { clearanceMin, clearanceMax } = clearances(bore, planes.flat());
  const { used, verdict } = graded(clearanceMax, clearance);
  return {
    ovality,
    taper,
    clearanceMin,
    clearanceMax,
    used,
    verdict: worstOf([
      verdict,
      ...(ovalityLimit === undefined ? [] : [gradeOfLimit(ovality, ovalityLimit)]),
      ...(taperLimit === undefined ? [] : [gradeOfLimit(taper, taperLimit)]),
    ]),
  };
}

/** A valve stem and the guide it runs in, each measured at several places; mm. */
export interface StemGuideInput {
  readonly stem: readonly number[];
  readonly guide: readonly number[];
  readonly clearance: WearLimits;
}

/**
 * Grades a stem in its guide by the widest guide over the least stem.
 *
 * @example stemGuide({ stem: [6.97], guide: [7.01, 7.0, 7.03], clearance: { nominal: 0.03, limit: 0.1 } }).bellMouth // 0.03
 */
export function stemGuide({ stem, guide, clearance }: StemGuideInput) {
  const { clearanceMax } = clearances(guide, stem);
  return {
    clearanceMax,
    stemWear: spreadOf(stem),
    bellMouth: spreadOf(guide),
    ...graded(clearanceMax, clearance),
  };
}

/** A valve spring: lengths in mm, forces in N. */
export interface SpringInput {
  readonly freeLength: number;
  readonly freeLengthSpec: WearLimits;
  /** two loads at two heights */
  readonly loads: readonly { readonly height: number; readonly force: number }[];
  readonly installedHeight: number;
  readonly lift: number;
  readonly coilBindHeight: number;
  readonly seatForceMin?: number | undefined;
  readonly bindMarginMin?: number | undefined;
}

/**
 * Works out what a spring presses with where it stands, and what is left before its coils meet.
 *
 * Rule: rate from two loads; seat force at the installed height, open force at the lift below it.
 *
 * @throws RangeError where the two loads are at one height
 */
export function springForces({
  loads: [first, second],
  installedHeight,
  lift,
  coilBindHeight,
}: Pick<SpringInput, 'loads' | 'installedHeight' | 'lift' | 'coilBindHeight'>) {
  if (!first || !second || first.height === second.height)
    throw new RangeError('loads must be two, at two heights');
  const rate = (second.force - first.force) / (first.height - second.height);
  const forceAt = (height: number) => first.force + rate * (first.height - height);
  const open = installedHeight - lift;
  return {
    rate,
    seatForce: forceAt(installedHeight),
    openForce: forceAt(open),
    bindMargin: open - coilBindHeight,
  };
}

/**
 * Grades a spring by its free length; one that holds its valve too weakly, or has too little left before its coils meet, is
 * replaced whatever its length.
 *
 * @throws RangeError where the two loads are at one height
 * @example spring({ freeLength: 44.6, freeLengthSpec: { nominal: 45, limit: 44 }, loads: [{ height: 35, force: 250 }, { height: 27, force: 520 }], installedHeight: 35, lift: 8, coilBindHeight: 25 }).bindMargin // 2
 */
export function spring(input: SpringInput) {
  const forces = springForces(input);
  const { seatForce, bindMargin } = forces;
  const { used, verdict } = graded(input.freeLength, input.freeLengthSpec);
  const weak = input.seatForceMin !== undefined && isUnder(seatForce, input.seatForceMin);
  const binds = input.bindMarginMin !== undefined && isUnder(bindMargin, input.bindMarginMin);
  return {
    ...forces,
    used,
    verdict: worstOf([verdict, weak || binds ? 'replace' : 'keep']),
  };
}

/** A chain pulled taut and measured over a counted number of pitches, at one place or several; mm. */
export interface ChainInput {
  readonly measured: number | readonly number[];
  readonly nominal: number;
  readonly limitPercent: number;
}

/**
 * Works out how much longer a chain is than new, at its worst place; percent.
 *
 * @throws RangeError where nominal is not above 0
 */
export function stretchOf({ measured, nominal }: Pick<ChainInput, 'measured' | 'nominal'>): number {
  if (!(nominal > 0)) throw new RangeError('nominal must be above 0');
  return ((greatest([measured].flat()) - nominal) / nominal) * 100;
}

/**
 * Grades a chain by how much longer it is than new, at its worst place.
 *
 * Rule: 21 pins are 20 pitches; a chain is measured taut.
 *
 * @throws RangeError where nominal is not above 0
 * @example chain({ measured: 127.89, nominal: 127, limitPercent: 1.5 }).stretchPercent // 0.7008
 */
export function chain({ measured, nominal, limitPercent }: ChainInput) {
  const stretchPercent = stretchOf({ measured, nominal });
  const used = shareOfLimit(stretchPercent, limitPercent);
  return { stretchPercent, used, verdict: gradeOf(used) };
}

/** One figure measured once or several times: runout, end float, margin, pad, plastic strip. */
export interface ValueInput extends WearLimits {
  readonly measured: readonly number[];
}

/**
 * Grades a figure by the measurement farthest towards its limit.
 *
 * @example value({ measured: [0.59, 1.17], nominal: 1.2, limit: 0.6 }).worst // 0.59
 */
export function value({ measured, nominal, limit }: ValueInput) {
  const worst = limit > nominal ? greatest(measured) : least(measured);
  return { worst, ...graded(worst, { nominal, limit }) };
}

/** What runs in something else: a follower in its bore, a bush on its shaft; mm. */
export interface FitInput {
  readonly outer: readonly number[];
  readonly inner: readonly number[];
  readonly clearance: WearLimits;
}

/**
 * Grades a fit by its greatest clearance.
 *
 * @example fit({ outer: [29.017], inner: [28.941], clearance: { nominal: 0.03, limit: 0.08 } }).clearanceMax // 0.076
 */
export function fit({ outer, inner, clearance }: FitInput) {
  const between = clearances(outer, inner);
  return { ...between, ...graded(between.clearanceMax, clearance) };
}

/** A figure that has a band and no wear in it: seat width, installed height; mm. */
export interface BandInput {
  readonly measured: readonly number[];
  readonly min: number;
  readonly max: number;
}

/**
 * Says how far the worst measurement is out of its band; any that is out is put right.
 *
 * @throws RangeError where max is under min
 * @example band({ measured: [1.05, 1.2], min: 1.1, max: 1.5 }).outside // 0.05
 */
export function band({ measured, min, max }: BandInput) {
  if (max < min) throw new RangeError('max must not be below min');
  const [low, high] = [least(measured), greatest(measured)];
  const outside = Math.max(0, min - low, high - max);
  return {
    least: low,
    greatest: high,
    outside,
    verdict: isUnder(0, outside) ? ('replace' as const) : ('keep' as const),
  };
}

/** How far a stem rocks in its guide, side to side in all, at a height above the guide's end; mm. */
export interface GuideWobbleInput {
  readonly wobble: number;
  readonly height: number;
  readonly guideLength: number;
  readonly clearance: WearLimits;
}

/**
 * Works out the clearance of a guide from how far a stem rocks in it.
 *
 * Rule: the stem leans from one end of the guide to the other; lever geometry over the guide's length.
 *
 * @throws RangeError where the guide has no length
 */
export function wobbleClearance({
  wobble,
  height,
  guideLength,
}: Pick<GuideWobbleInput, 'wobble' | 'height' | 'guideLength'>): number {
  if (!(guideLength > 0)) throw new RangeError('guideLength must be above 0');
  return (wobble * guideLength) / (guideLength + 2 * height);
}

/**
 * Grades a guide by how far a stem rocks in it, where neither can be measured.
 *
 * @throws RangeError where the guide has no length
 * @example guideWobble({ wobble: 0.157, height: 10, guideLength: 41.5, clearance: { nominal: 0.03, limit: 0.1 } }).clearanceMax // 0.1059
 */
export function guideWobble({ clearance, ...rocked }: GuideWobbleInput) {
  const clearanceMax = wobbleClearance(rocked);
  return { clearanceMax, ...graded(clearanceMax, clearance) };
}

/** Pressures cylinder by cylinder, in any one unit. */
export interface CompressionInput {
  readonly cylinders: readonly { readonly cylinder: string; readonly pressure: number }[];
  readonly least: number;
  /** how far one may be under the best, as a share of the best */
  readonly spreadLimit: number;
}

/**
 * Finds the cylinders that are low: under the least, or too far under the best. Any low one is found out about.
 *
 * @throws RangeError where no cylinder has any pressure
 * @example compression({ cylinders: [{ cylinder: '1', pressure: 12 }, { cylinder: '2', pressure: 8 }], least: 9, spreadLimit: 0.1 }).low // ['2']
 */
export function compression({ cylinders, least: lowest, spreadLimit }: CompressionInput) {
  const pressures = cylinders.map(({ pressure }) => pressure);
  const [best, weakest] = [greatest(pressures), least(pressures)];
  if (!(best > 0)) throw new RangeError('some cylinder must have pressure');
  const low = cylinders
    .filter(({ pressure }) => isUnder(pressure, lowest) || isUnder(spreadLimit, (best - pressure) / best))
    .map(({ cylinder }) => cylinder);
  return {
    best,
    weakest,
    spread: (best - weakest) / best,
    low,
    verdict: low.length > 0 ? ('out' as const) : ('keep' as const),
  };
}

/** Air lost cylinder by cylinder, in percent, with the crank barred. */
export interface LeakDownInput {
  readonly cylinders: readonly { readonly cylinder: string; readonly percent: number }[];
  readonly watch: number;
  readonly limit: number;
}

/**
 * Grades what each cylinder loses: watched above one figure, put right above another.
 *
 * @example leakDown({ cylinders: [{ cylinder: '1', percent: 6 }, { cylinder: '2', percent: 14 }], watch: 10, limit: 20 }).verdicts // { 1: 'keep', 2: 'watch' }
 */
export function leakDown({ cylinders, watch, limit }: LeakDownInput) {
  const gradeFor = (percent: number): Grade =>
    isUnder(limit, percent) ? 'replace' : isUnder(watch, percent) ? 'watch' : 'keep';
  const verdicts = Object.fromEntries(
    cylinders.map(({ cylinder, percent }) => [cylinder, gradeFor(percent)]),
  );
  return { verdicts, verdict: worstOf(Object.values(verdicts)) };
}
