/** A gap as it was forecast before the head went together, and as it was then first measured; mm. */
export interface ForecastPair {
  readonly forecast: number;
  readonly measured: number;
}

/** How far forecasts were off: above 0 they were too low. Lengths in mm. */
export interface ForecastBias {
  readonly count: number;
  readonly mean: number;
  /** spread of a single one about the mean; null under two */
  readonly sd: number | null;
}

/**
 * Sums up how far forecasts of one pattern were off, once gaps were measured with what was reckoned with.
 *
 * @returns null where nothing was measured yet
 * @example forecastBias([{ forecast: 0.12, measured: 0.14 }]) // { count: 1, mean: 0.02, sd: null }
 */
export function forecastBias(pairs: readonly ForecastPair[]): ForecastBias | null {
  if (pairs.length === 0) return null;
  const off = pairs.map(({ forecast, measured }) => measured - forecast);
  const mean = off.reduce((sum, one) => sum + one, 0) / off.length;
  const squares = off.reduce((sum, one) => sum + (one - mean) ** 2, 0);
  return { count: off.length, mean, sd: off.length < 2 ? null : Math.sqrt(squares / (off.length - 1)) };
}
