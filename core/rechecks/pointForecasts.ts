import { fleetPrior, unlike } from '../fleet/index.ts';
import { driftForecast, driftOf, type DriftForecastInput } from './driftForecast.ts';
import type { UsageUnit } from './usageUnit.ts';

/** What one point measured since it was set; mm, usage counted from the setting. */
export interface PointCourse {
  readonly point: string;
  readonly role: string;
  readonly limits: { readonly min: number; readonly max: number };
  readonly observations: DriftForecastInput['observations'];
}

/** What is expected of the points of one role before they are measured, and where that is from. */
export interface RolePrior {
  readonly role: string;
  /** the shop's own closed rechecks of the pattern, or what is stated for any engine */
  readonly from: 'own' | 'stated';
  /** points it rests on */
  readonly count: number;
  readonly perUnit: number;
  readonly sd: number;
  /** how far points of one engine differ where nothing is wrong */
  readonly betweenSd: number;
}

/** How one of the shop's own points moved; mm a unit of usage. */
export interface OwnDrift {
  readonly role: string;
  readonly value: number;
  readonly se: number;
}

/** How likely a point may be out before it is looked at. */
export const FORECAST_THRESHOLD = 0.2;
/** mm, how well a gap is felt again where a person's own feel is not known. */
export const USUAL_FEEL = 0.004;
/** The share of sound engines that may be accused of an odd point. */
const ALPHA = 0.02;
/** A forecast never asks for a look before this share of the planned running is over. */
const LEAST_SHARE = 0.1;
/** How far ahead is looked, as a multiple of the planned running. */
const LOOKED_AHEAD = 4;
const STEPS = 80;
/** So many standard errors from what is expected, a point speaks for itself. */
const SPEAKS_FOR_ITSELF = 3;
/** Nothing is known of a drift before it is measured; mm a unit. */
const UNKNOWN = 1;

/** One unit of each kind of usage, in hours that wear as much. */
const HOURS_IN: Readonly<Record<UsageUnit, number>> = {
  ...{ hours: 1, km: 1 / 40, miles: 1.609344 / 40, starts: 0.5, events: 1 },
  // nothing is forecast by it
  none: 1,
};
/** What any engine does where nothing is known of its own kind: it beds in by a few micrometres, then closes slowly. */
const STATED = { bedIn: { mean: -0.004, sd: 0.006 }, perHour: -0.00001, sd: 0.00005, tauHours: 10 };

/**
 * States what is expected of a point of any engine, where the shop has too few rechecks of its kind.
 *
 * Rule: our own cautious default; `fleetPrior` takes its place from five points on.
 *
 * @example statedPrior('hours').perUnit // { mean: -0.00001, sd: 0.00005 }
 */
export function statedPrior(unit: UsageUnit): DriftForecastInput['prior'] {
  const hours = HOURS_IN[unit];
  return {
    bedIn: STATED.bedIn,
    perUnit: { mean: STATED.perHour * hours, sd: STATED.sd * hours },
    tau: STATED.tauHours / hours,
  };
}

/**
 * Finds what is expected of each role of a pattern: from the shop's own closed rechecks, or as stated where there are under five.
 *
 * @param drifts of every point of that pattern, one an engine and point
 * @example rolePriors(['intake', 'exhaust'], 'hours', []).find(({ role }) => role === 'exhaust')?.from // 'stated'
 */
export function rolePriors(
  roles: readonly string[],
  unit: UsageUnit,
  drifts: readonly OwnDrift[],
): readonly RolePrior[] {
  const stated = statedPrior(unit).perUnit;
  return roles.map((role) => {
    const { count, mean, predictiveSd, betweenSd } = fleetPrior({
      estimates: drifts.filter((drift) => drift.role === role),
    });
    // engines that agree to the last figure still differ by a little: the next one is not known without spread
    const least = stated.sd / 4;
    return mean === null
      ? { role, from: 'stated', count, perUnit: stated.mean, sd: stated.sd, betweenSd: stated.sd / 2 }
      : {
          ...{ role, from: 'own', count, perUnit: mean },
          sd: Math.max(predictiveSd!, least),
          betweenSd: Math.max(betweenSd!, least),
        };
  });
}

/** What is forecast of one point for the day it is looked at. */
export interface PointForecast {
  readonly point: string;
  readonly perUnit: number;
  readonly mean: number;
  readonly sd: number;
  readonly pTight: number;
  readonly pLoose: number;
  /** usage since it was set at which it may be out as likely as the threshold; null up to the horizon */
  readonly outAt: number | null;
  readonly unlike: 'tighter' | 'looser' | null;
  /** it rests on what is stated for any engine alone: nothing of its kind, and nothing of its own, was measured yet */
  readonly byDefault: boolean;
}

/**
 * What is expected of a point. Where it has measured a drift that its kind does not have, that is believed, and not pulled back
 * to the others: the one that goes fast is the one that burns.
 */
function priorFor(
  course: Pick<PointCourse, 'role' | 'observations'>,
  unit: UsageUnit,
  priors: readonly RolePrior[],
  measured = ownDrift(course, unit),
): DriftForecastInput['prior'] {
  const stated = statedPrior(unit);
  const known = priors.find((prior) => prior.role === course.role);
  const perUnit = known ? { mean: known.perUnit, sd: known.sd } : stated.perUnit;
  const alone =
    measured !== null &&
    Math.abs(measured.value - perUnit.mean) > SPEAKS_FOR_ITSELF * Math.hypot(measured.se, perUnit.sd);
  return { ...stated, perUnit: alone ? { mean: 0, sd: UNKNOWN } : perUnit };
}

/** Courses that anything can be said of: with an observation at least, each with an upper end. */
const known = (courses: readonly PointCourse[]) =>
  courses.filter(({ observations }) => observations.length > 0);

/**
 * Forecasts every point of an engine for its next look, and names those that move unlike the others of their role.
 *
 * Rule: no gap is under nothing; one that would be is closed, and as likely tight as before.
 *
 * @param at usage since it was set at which it will be looked at
 * @returns nothing of a point that was never measured
 * @example pointForecasts([course], 'hours', rolePriors(['exhaust'], 'hours', []), { now: 0, at: 250 })[0]?.point // '3E'
 */
export function pointForecasts(
  courses: readonly PointCourse[],
  unit: UsageUnit,
  priors: readonly RolePrior[],
  { now, at }: { readonly now: number; readonly at: number },
): readonly PointForecast[] {
  const ahead = Math.max(at - now, 1);
  const horizon = now + ahead * LOOKED_AHEAD;
  const drifts = new Map(courses.map((course) => [course, ownDrift(course, unit)]));
  const odd = oddPoints(drifts, unit, priors);
  return known(courses).map((course) => {
    const { point, limits, observations } = course;
    const {
      perUnit,
      at: seen,
      dueUsage,
    } = driftForecast({
      ...{ observations, spec: limits, prior: priorFor(course, unit, priors, drifts.get(course)) },
      ...{ operatorSd: USUAL_FEEL, threshold: FORECAST_THRESHOLD, horizon, at: [at] },
      step: (horizon - now) / STEPS,
    });
    const { mean, sd, pTight, pLoose } = seen[0]!;
    const byDefault =
      drifts.get(course) === null && priors.find(({ role }) => role === course.role)?.from !== 'own';
    return {
      ...{ point, perUnit, mean: Math.max(0, mean), sd, pTight, pLoose, outAt: dueUsage },
      ...{ unlike: odd.get(point) ?? null, byDefault },
    };
  });
}

/**
 * Says where one point was forecast to be at a usage, with what measuring adds: what a finding is held against.
 *
 * @example saidOf(course, 'hours', rolePriors(['exhaust'], 'hours', []), 120).sd > 0 // true
 */
export function saidOf(
  course: Pick<PointCourse, 'role' | 'observations'>,
  unit: UsageUnit,
  priors: readonly RolePrior[],
  usage: number,
): { readonly mean: number; readonly sd: number } {
  const { observations } = course;
  return driftOf({ observations, prior: priorFor(course, unit, priors), operatorSd: USUAL_FEEL }).at(usage);
}

/**
 * Forecasts one point along its running: what a drawing of its course shows.
 *
 * Rule: where a gap would be under nothing it is closed.
 *
 * @param from, to usage since it was set
 * @example courseAhead(course, 'hours', rolePriors(['exhaust'], 'hours', []), { from: 0, to: 400, steps: 40 }).length // 41
 */
export function courseAhead(
  course: PointCourse,
  unit: UsageUnit,
  priors: readonly RolePrior[],
  { from, to, steps }: { readonly from: number; readonly to: number; readonly steps: number },
): readonly { readonly usage: number; readonly mean: number; readonly sd: number }[] {
  if (course.observations.length === 0) return [];
  const { at } = driftOf({
    observations: course.observations,
    prior: priorFor(course, unit, priors),
    operatorSd: USUAL_FEEL,
  });
  return Array.from({ length: steps + 1 }, (_, index) => {
    const usage = from + ((to - from) * index) / steps;
    const { mean, sd } = at(usage);
    return { usage, mean: Math.max(0, mean), sd };
  });
}

/**
 * Estimates how fast one point moves, from what it measured alone.
 *
 * @returns null where it was not looked at again after it was set
 * @example ownDrift(course, 'hours').value < 0 // true
 */
export function ownDrift(
  { observations }: Pick<PointCourse, 'observations'>,
  unit: UsageUnit,
): { readonly value: number; readonly se: number } | null {
  if (new Set(observations.map(({ usage }) => usage)).size < 2) return null;
  const stated = statedPrior(unit);
  const { perUnit, perUnitSd } = driftOf({
    observations,
    prior: { ...stated, perUnit: { mean: 0, sd: UNKNOWN } },
    operatorSd: USUAL_FEEL,
  });
  return { value: perUnit, se: perUnitSd };
}

/** Points that move unlike the others of their role on the same engine, and which way. */
function oddPoints(
  drifts: ReadonlyMap<PointCourse, ReturnType<typeof ownDrift>>,
  unit: UsageUnit,
  priors: readonly RolePrior[],
): ReadonlyMap<string, 'tighter' | 'looser'> {
  const odd = new Map<string, 'tighter' | 'looser'>();
  for (const role of new Set([...drifts.keys()].map((course) => course.role))) {
    const moved = [...drifts].flatMap(([course, drift]) =>
      course.role === role && drift ? [{ key: course.point, perUnit: drift.value, se: drift.se }] : [],
    );
    if (moved.length === 0) continue;
    const mean = moved.reduce((sum, { perUnit }) => sum + perUnit, 0) / moved.length;
    const betweenSd =
      priors.find((prior) => prior.role === role)?.betweenSd ?? statedPrior(unit).perUnit.sd / 2;
    for (const { key, unlike: isOdd } of unlike({ points: moved, betweenSd, alpha: ALPHA }).points)
      if (isOdd) odd.set(key, moved.find((each) => each.key === key)!.perUnit < mean ? 'tighter' : 'looser');
  }
  return odd;
}

/**
 * Brings a recheck forward where the forecast has a point out before the plan looks: never back, and never at once.
 *
 * Rule: no sooner than a tenth of the running that was planned. What rests on the stated default alone moves no date: it is our own
 * cautious figure, and no knowledge of this engine.
 *
 * @param dueUsage by the plan, running in all; null where running does not count
 * @param setAt running in all when it was set
 * @returns the running at which to look, or null where the plan looks soon enough
 * @example broughtForward([{ outAt: 110 }], { now: 100, dueUsage: 350, setAt: 100 }) // 210
 */
export function broughtForward(
  forecasts: readonly (Pick<PointForecast, 'outAt'> & Partial<Pick<PointForecast, 'byDefault'>>)[],
  {
    now,
    dueUsage,
    setAt,
    planned,
  }: {
    readonly now: number;
    readonly dueUsage: number | null;
    readonly setAt: number;
    /** running that was planned until the next look; what is left to `dueUsage` where it is left out */
    readonly planned?: number;
  },
): number | null {
  const first = Math.min(
    ...forecasts.map(({ outAt, byDefault = false }) =>
      outAt === null || byDefault ? Infinity : outAt + setAt,
    ),
  );
  if (!Number.isFinite(first)) return null;
  const whole = planned ?? (dueUsage === null ? 0 : dueUsage - now);
  const soonest = Math.round(Math.max(first, now + whole * LEAST_SHARE) * 10) / 10;
  return dueUsage !== null && soonest >= dueUsage ? null : soonest;
}

/** What to look for where a point moves as it does, likeliest first; the maker's manual governs. */
const CAUSES: Readonly<Record<'tighter' | 'looser', readonly string[]>> = {
  tighter: [
    'the seat or the valve face sinking',
    'a stretched or cupped valve: where it goes fast, leak-down before it is set again',
    'a wrong reading',
    'a head that was tightened again, which is a step and no drift',
  ],
  looser: [
    'the lobe, the pad or the follower wearing',
    'an adjuster backing off its lock',
    'a bent pushrod',
    'carbon under the seat',
    'a wrong reading',
    'a head that was tightened again, which is a step and no drift',
  ],
};

/**
 * Names what to inspect for where a point moves unlike its neighbours, by which way it goes.
 *
 * @example causesOf('tighter')[0] // 'the seat or the valve face sinking'
 */
export const causesOf = (way: 'tighter' | 'looser'): readonly string[] => CAUSES[way];
