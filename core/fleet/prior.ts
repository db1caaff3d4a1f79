/** What engines of one pattern say of a drift: one estimate an engine and point, with its standard error. */
export interface FleetPriorInput {
  readonly estimates: readonly { readonly value: number; readonly se: number }[];
}

/** What to expect of the next engine; null under five estimates. */
export interface FleetPrior {
  readonly count: number;
  readonly mean: number | null;
  /** how far engines differ, beyond what measuring explains */
  readonly betweenSd: number | null;
  /** how far the next one may lie from the mean */
  readonly predictiveSd: number | null;
}

const LEAST_ESTIMATES = 5;

/**
 * Puts what a shop's own engines say of a drift together, for the next one's forecast.
 *
 * Rule: random effects by the method of moments; nothing is said from fewer than five.
 *
 * @throws RangeError where a standard error is not above 0
 * @example fleetPrior(given('fleet-prior')) // { count: 4, mean: null, betweenSd: null, predictiveSd: null }
 */
export function fleetPrior({ estimates }: FleetPriorInput): FleetPrior {
  const count = estimates.length;
  if (estimates.some(({ se }) => !(se > 0))) throw new RangeError('estimates: each se must be above 0');
  if (count < LEAST_ESTIMATES) return { count, mean: null, betweenSd: null, predictiveSd: null };
  const weights = estimates.map(({ se }) => 1 / se ** 2);
  const whole = sum(weights);
  const mean = sum(estimates.map(({ value }, index) => weights[index]! * value)) / whole;
  const scatter = sum(estimates.map(({ value }, index) => weights[index]! * (value - mean) ** 2));
  const scale = whole - sum(weights.map((weight) => weight ** 2)) / whole;
  const between = Math.max(0, (scatter - (count - 1)) / scale);
  const shared = estimates.map(({ se }) => 1 / (se ** 2 + between));
  const all = sum(shared);
  return {
    count,
    mean: sum(estimates.map(({ value }, index) => shared[index]! * value)) / all,
    betweenSd: Math.sqrt(between),
    predictiveSd: Math.sqrt(between + 1 / all),
  };
}

const sum = (figures: readonly number[]) => figures.reduce((all, one) => all + one, 0);
