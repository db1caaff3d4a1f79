/** Measurements of one place at different running figures of one engine, and what the place may wear to. */
export interface WearRateInput {
  readonly observations: readonly { readonly usage: number; readonly measured: number }[];
  readonly nominal: number;
  readonly limit: number;
}

/** How fast a place wears, and when it meets its limit; null where that cannot be said. */
export interface WearRate {
  /** in the figure's unit, for each unit of usage */
  readonly perUnit: number | null;
  /** usage at which the line meets the limit */
  readonly atLimit: number | null;
  /** usage from the last measurement to there; 0 where it is past it */
  readonly left: number | null;
}

const UNKNOWN: WearRate = { perUnit: null, atLimit: null, left: null };

/**
 * Lays a straight line through what a place measured, build by build, and says where it meets its limit.
 *
 * Rule: least squares. Under two different running figures nothing is said; a place that does not move towards its limit never
 * meets it. The last measurement is the one at the greatest running.
 *
 * @throws RangeError where limit and nominal are the same figure
 * @example wearRate(given('wear-rate')).left // 1084
 */
export function wearRate({ observations, nominal, limit }: WearRateInput): WearRate {
  if (limit === nominal) throw new RangeError('limit must differ from nominal');
  const usages = observations.map(({ usage }) => usage);
  if (new Set(usages).size < 2) return UNKNOWN;
  const count = observations.length;
  const meanUsage = usages.reduce((sum, usage) => sum + usage, 0) / count;
  const meanMeasured = observations.reduce((sum, { measured }) => sum + measured, 0) / count;
  const across = observations.reduce(
    (sum, { usage, measured }) => sum + (usage - meanUsage) * (measured - meanMeasured),
    0,
  );
  const perUnit = across / usages.reduce((sum, usage) => sum + (usage - meanUsage) ** 2, 0);
  if (perUnit * (limit - nominal) <= 0) return { perUnit, atLimit: null, left: null };
  const atLimit = meanUsage + (limit - meanMeasured) / perUnit;
  return { perUnit, atLimit, left: Math.max(0, atLimit - Math.max(...usages)) };
}
