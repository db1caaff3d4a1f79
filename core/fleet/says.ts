/** Under so many engines nothing is said: it would be gossip about one of them. */
export const LEAST_ENGINES = 3;

/** How often a recheck may find a point out before the plan must look sooner, and the rechecks that takes to say. */
const TOO_OFTEN = 0.2;
const LEAST_RECHECKS = 5;
/** As many rechecks that found nothing, and forecasts that expect nothing, before the plan may look later. */
const LEAST_QUIET = 10;
const SURE = 0.05;

/** The two-sided share of a normal figure's own spread: within 1.2816 of it lie 80 %. */
const WITHIN_80 = 1.2815515655446004;
const SAID = 0.8;

/** One finding held against its forecast; mm. */
export interface Finding {
  readonly engine: string;
  readonly found: number;
  /** how well it was measured: the whole width of its bracket */
  readonly width: number;
  readonly saidMean: number;
  readonly saidSd: number;
}

/** How good forecasts were: of those said with 80 %, how many were inside. */
export interface Calibration {
  readonly said: number;
  readonly count: number;
  readonly inside: number;
  readonly engines: number;
}

/**
 * Says whether a finding lay where its forecast had it with 80 %: the forecast's own spread with that of the measuring.
 *
 * @param feel mm, how well a gap is felt again
 * @example wasInside({ engine: 'a', found: 0.2, width: 0.02, saidMean: 0.205, saidSd: 0.006 }, 0.004) // true
 */
export function wasInside(
  { found, width, saidMean, saidSd }: Omit<Finding, 'engine'>,
  feel: number,
): boolean {
  const spread = Math.sqrt(saidSd ** 2 + width ** 2 / 12 + feel ** 2);
  return Math.abs(found - saidMean) <= WITHIN_80 * spread;
}

/**
 * Counts how many findings lay inside what was said of them.
 *
 * @returns null from under three engines
 * @example calibrationOf([], 0.004) // null
 */
export function calibrationOf(findings: readonly Finding[], feel: number): Calibration | null {
  const engines = new Set(findings.map(({ engine }) => engine)).size;
  if (engines < LEAST_ENGINES) return null;
  return {
    ...{ said: SAID, count: findings.length, engines },
    inside: findings.filter((finding) => wasInside(finding, feel)).length,
  };
}

/** What the shop's rechecks of one pattern say of how far apart they are. */
export interface IntervalSays {
  readonly says: 'shorter' | 'longer' | 'right' | 'too-few';
  readonly engines: number;
  readonly rechecks: number;
  readonly out: number;
}

/**
 * Says whether a pattern's interval could be longer or must be shorter.
 *
 * Rule: shorter where a fifth of at least five rechecks found a point out; longer where none of at least ten did and the
 * forecasts expect one in less than a twentieth; nothing from under three engines. A person decides.
 *
 * @param expectedOut how likely, in the mean, a planned recheck will find a point out; null where nothing is forecast
 * @example intervalSays({ engines: 4, rechecks: 12, out: 0, expectedOut: 0.01 }).says // 'longer'
 */
export function intervalSays({
  engines,
  rechecks,
  out,
  expectedOut,
}: Omit<IntervalSays, 'says'> & { readonly expectedOut: number | null }): IntervalSays {
  const all = { engines, rechecks, out };
  if (engines < LEAST_ENGINES || rechecks < LEAST_RECHECKS) return { ...all, says: 'too-few' };
  if (out / rechecks >= TOO_OFTEN) return { ...all, says: 'shorter' };
  const quiet = rechecks >= LEAST_QUIET && out === 0 && expectedOut !== null && expectedOut < SURE;
  return { ...all, says: quiet ? 'longer' : 'right' };
}
