import { normalBelow } from '../fleet/index.ts';

interface Normal {
  readonly mean: number;
  readonly sd: number;
}

/** What is known of one point since it was set, and what is expected of such points. Lengths in mm. */
export interface DriftForecastInput {
  /** usage is counted from the setting */
  readonly observations: readonly { readonly usage: number; readonly lo: number; readonly hi: number }[];
  readonly spec: { readonly min: number; readonly max: number };
  readonly prior: {
    /** what it moves while it beds in */
    readonly bedIn: Normal;
    /** what it moves for each unit of usage from then on */
    readonly perUnit: Normal;
    /** usage in which it beds in */
    readonly tau: number;
  };
  /** mm, how well whoever measures feels the same gap again */
  readonly operatorSd: number;
  /** how likely it may be out before it is looked at */
  readonly threshold: number;
  readonly horizon: number;
  readonly step: number;
  readonly at: readonly number[];
}

/** Where a gap will be, and when it may be out. */
export interface DriftForecast {
  readonly bedIn: number;
  readonly perUnit: number;
  readonly at: readonly {
    readonly usage: number;
    readonly mean: number;
    readonly sd: number;
    readonly pTight: number;
    readonly pLoose: number;
  }[];
  /** the first usage at which it may be out as likely as the threshold; null up to the horizon */
  readonly dueUsage: number | null;
}

/** mm, how little is known of a gap before it is first measured. */
const START_SD = 1;
const ON_BOUNDARY = 1e-9;

/**
 * Forecasts a gap from what it measured since it was set: it beds in, then moves with usage.
 *
 * Rule: a linear model with normal priors, brought up to date observation by observation; a bracket counts as its middle with
 * the variance of its width, and of the hand that took it.
 *
 * @throws RangeError where nothing was observed, or an observation has no width and no hand's spread
 * @example driftForecast(input).dueUsage // 225
 */
export function driftForecast(input: DriftForecastInput): DriftForecast {
  const { spec, threshold, horizon, step } = input;
  if (!(step > 0)) throw new RangeError('step must be above 0');
  const { state, rowAt, last } = learnDrift(input);
  const forecast = (usage: number) => {
    const row = rowAt(usage);
    const mean = dot(row, state.mean);
    const sd = Math.sqrt(Math.max(0, dot(row, times(state.covariance, row))));
    return { usage, mean, sd, pTight: below(spec.min, mean, sd), pLoose: 1 - below(spec.max, mean, sd) };
  };
  let dueUsage: number | null = null;
  for (let ahead = 0; dueUsage === null; ahead += 1) {
    const usage = last + ahead * step;
    if (usage > horizon + ON_BOUNDARY) break;
    const { pTight, pLoose } = forecast(usage);
    if (pTight + pLoose >= threshold - ON_BOUNDARY) dueUsage = usage;
  }
  return { bedIn: state.mean[1]!, perUnit: state.mean[2]!, at: input.at.map(forecast), dueUsage };
}

/** What is known of a point's course once its observations are in. */
export interface KnownDrift {
  /** mm a unit of usage, and how well it is known */
  readonly perUnit: number;
  readonly perUnitSd: number;
  /** the gap at a usage, mm, without what measuring adds */
  readonly at: (usage: number) => Normal;
}

/**
 * Learns how a point moves from what it measured, with as much of a prior as it is given.
 *
 * @throws RangeError as `driftForecast` does
 * @example driftOf({ observations, prior, operatorSd: 0.004 }).perUnitSd
 */
export function driftOf(
  input: Pick<DriftForecastInput, 'observations' | 'prior' | 'operatorSd'>,
): KnownDrift {
  const { state, rowAt } = learnDrift(input);
  return {
    perUnit: state.mean[2]!,
    perUnitSd: Math.sqrt(state.covariance[2]![2]!),
    at: (usage) => {
      const row = rowAt(usage);
      return {
        mean: dot(row, state.mean),
        sd: Math.sqrt(Math.max(0, dot(row, times(state.covariance, row)))),
      };
    },
  };
}

function learnDrift({
  observations: given,
  prior,
  operatorSd,
}: Pick<DriftForecastInput, 'observations' | 'prior' | 'operatorSd'>) {
  const observations = given.toSorted((a, b) => a.usage - b.usage);
  const [first] = observations;
  if (!first) throw new RangeError('observations must not be empty');
  if (!(prior.tau > 0)) throw new RangeError('prior.tau must be above 0');
  const rowAt = (usage: number) => [1, 1 - Math.exp(-usage / prior.tau), usage] as const;
  let state: Posterior = {
    mean: [(first.lo + first.hi) / 2, prior.bedIn.mean, prior.perUnit.mean],
    covariance: diagonal([START_SD, prior.bedIn.sd, prior.perUnit.sd]),
  };
  observations.forEach(({ usage, lo, hi }, index) => {
    const noise = (hi - lo) ** 2 / 12 + operatorSd ** 2;
    if (!(noise > 0)) throw new RangeError(`observations.${index}: has no width, and operatorSd is 0`);
    state = learn(state, rowAt(usage), (lo + hi) / 2, noise);
  });
  return { state, rowAt, last: observations.at(-1)!.usage };
}

/** How likely a figure with a mean and spread lies below another; without spread it does or does not. */
function below(limit: number, mean: number, sd: number): number {
  if (sd > 0) return normalBelow((limit - mean) / sd);
  return mean < limit ? 1 : 0;
}

interface Posterior {
  readonly mean: readonly number[];
  readonly covariance: readonly (readonly number[])[];
}

/** Brings what is known up to date by one observation of a row of the model. */
function learn(
  { mean, covariance }: Posterior,
  row: readonly number[],
  seen: number,
  noise: number,
): Posterior {
  const across = times(covariance, row);
  const variance = dot(row, across) + noise;
  const gain = across.map((one) => one / variance);
  const off = seen - dot(row, mean);
  return {
    mean: mean.map((one, index) => one + gain[index]! * off),
    covariance: covariance.map((line, i) => line.map((one, j) => one - gain[i]! * across[j]!)),
  };
}

const dot = (a: readonly number[], b: readonly number[]) =>
  a.reduce((sum, one, index) => sum + one * b[index]!, 0);
const times = (matrix: readonly (readonly number[])[], row: readonly number[]) =>
  matrix.map((line) => dot(line, row));
const diagonal = (sds: readonly number[]) => sds.map((sd, i) => sds.map((_, j) => (i === j ? sd ** 2 : 0)));
