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
 * @example driftForecast(given('drift-forecast')).dueUsage // 215
 */
export function driftForecast(input: DriftForecastInput): DriftForecast {
  const { spec, threshold, horizon, step } = input;
  if (!(step > 0)) throw new RangeError('step must be above 0');
  const { state, last } = learnDrift(input);
  const forecast = (usage: number) => {
    const [mean, sd] = [state.meanAt(usage), state.sdAt(usage)];
    return { usage, mean, sd, pTight: below(spec.min, mean, sd), pLoose: 1 - below(spec.max, mean, sd) };
  };
  // what is out at most is known at little cost, and settles most steps
  const mayBeOut = (usage: number) => {
    const [mean, sd] = [state.meanAt(usage), state.sdAt(usage)];
    return atMost((spec.min - mean) / sd) + atMost((mean - spec.max) / sd);
  };
  let dueUsage: number | null = null;
  for (let ahead = 0; dueUsage === null; ahead += 1) {
    const usage = last + ahead * step;
    if (usage > horizon + ON_BOUNDARY) break;
    if (mayBeOut(usage) < threshold - ON_BOUNDARY) continue;
    const { pTight, pLoose } = forecast(usage);
    if (pTight + pLoose >= threshold - ON_BOUNDARY) dueUsage = usage;
  }
  return { bedIn: state.bedIn, perUnit: state.perUnit, at: input.at.map(forecast), dueUsage };
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
 * @example driftOf(given('drift-forecast')).perUnitSd > 0 // true
 */
export function driftOf(
  input: Pick<DriftForecastInput, 'observations' | 'prior' | 'operatorSd'>,
): KnownDrift {
  const { state } = learnDrift(input);
  return {
    perUnit: state.perUnit,
    perUnitSd: state.perUnitSd,
    at: (usage) => ({ mean: state.meanAt(usage), sd: state.sdAt(usage) }),
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
  const state = new Posterior(
    [(first.lo + first.hi) / 2, prior.bedIn.mean, prior.perUnit.mean],
    [START_SD, prior.bedIn.sd, prior.perUnit.sd],
    prior.tau,
  );
  observations.forEach(({ usage, lo, hi }, index) => {
    const noise = (hi - lo) ** 2 / 12 + operatorSd ** 2;
    if (!(noise > 0)) throw new RangeError(`observations.${index}: has no width, and operatorSd is 0`);
    state.learn(usage, (lo + hi) / 2, noise);
  });
  return { state, last: observations.at(-1)!.usage };
}

/** At most so much of the standard normal lies below a figure: half of e to minus half its square, where it is under 0. */
const atMost = (z: number) => (z < 0 ? Math.exp((-z * z) / 2) / 2 : 1);

/** How likely a figure with a mean and spread lies below another; without spread it does or does not. */
function below(limit: number, mean: number, sd: number): number {
  if (sd > 0) return normalBelow((limit - mean) / sd);
  return mean < limit ? 1 : 0;
}

/**
 * What is known of a start, a bedding in and a drift: their means and how they vary together. Written out, and not as matrices,
 * because ten thousand points are forecast at once.
 */
class Posterior {
  readonly #tau: number;
  #start: number;
  #bedIn: number;
  perUnit: number;
  /** variances of the three, and how they vary together */
  #ss: number;
  #sb = 0;
  #sp = 0;
  #bb: number;
  #bp = 0;
  #pp: number;

  constructor(means: readonly [number, number, number], sds: readonly [number, number, number], tau: number) {
    [this.#start, this.#bedIn, this.perUnit] = means;
    [this.#ss, this.#bb, this.#pp] = [sds[0] ** 2, sds[1] ** 2, sds[2] ** 2];
    this.#tau = tau;
  }

  get bedIn(): number {
    return this.#bedIn;
  }

  get perUnitSd(): number {
    return Math.sqrt(this.#pp);
  }

  meanAt(usage: number): number {
    return this.#start + this.#bedded(usage) * this.#bedIn + usage * this.perUnit;
  }

  sdAt(usage: number): number {
    const bedded = this.#bedded(usage);
    const variance =
      this.#ss +
      2 * bedded * this.#sb +
      2 * usage * this.#sp +
      bedded * bedded * this.#bb +
      2 * bedded * usage * this.#bp +
      usage * usage * this.#pp;
    return Math.sqrt(Math.max(0, variance));
  }

  /** Brings what is known up to date by one observation. */
  learn(usage: number, seen: number, noise: number): void {
    const bedded = this.#bedded(usage);
    const s = this.#ss + bedded * this.#sb + usage * this.#sp;
    const b = this.#sb + bedded * this.#bb + usage * this.#bp;
    const p = this.#sp + bedded * this.#bp + usage * this.#pp;
    const variance = s + bedded * b + usage * p + noise;
    const off = (seen - this.meanAt(usage)) / variance;
    this.#start += s * off;
    this.#bedIn += b * off;
    this.perUnit += p * off;
    this.#ss -= (s * s) / variance;
    this.#sb -= (s * b) / variance;
    this.#sp -= (s * p) / variance;
    this.#bb -= (b * b) / variance;
    this.#bp -= (b * p) / variance;
    this.#pp -= (p * p) / variance;
  }

  #bedded(usage: number): number {
    return 1 - Math.exp(-usage / this.#tau);
  }
}
