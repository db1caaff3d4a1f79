/** What an engine's meter shows, and what it has run in all, over every meter it had; in its own unit of usage. */
export interface Metered {
  readonly usage: number;
  readonly running: number;
}

/**
 * Says what the meter will show when an engine has run so much in all. The two differ once a meter was changed.
 *
 * @returns to the tenth that is kept; under 0 for what an engine ran before its meter was fitted
 * @example onMeter(5100, { usage: 20, running: 5020 }) // 100
 */
export function onMeter(running: number, now: Metered): number {
  return Math.round((running - (now.running - now.usage)) * 10) / 10;
}
