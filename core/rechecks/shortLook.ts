import { FORECAST_THRESHOLD, type PointForecast } from './pointForecasts.ts';

/**
 * Names the points that a short look may not pass over: those that move unlike their neighbours, and those that may be out by
 * then as likely as a look is brought forward for.
 *
 * Rule: our own. A sample speaks for points that do as the others do, and for no other.
 *
 * @example suspectsOf([{ point: '4E', pTight: 0.3, pLoose: 0, unlike: null }]) // ['4E']
 */
export function suspectsOf(
  forecasts: readonly Pick<PointForecast, 'point' | 'pTight' | 'pLoose' | 'unlike'>[],
): readonly string[] {
  return forecasts
    .filter(({ pTight, pLoose, unlike }) => unlike !== null || pTight + pLoose >= FORECAST_THRESHOLD)
    .map(({ point }) => point);
}

/**
 * Chooses the points of a recheck where its plan wants a few of them only: the sample, and whatever is suspect beside it.
 *
 * @param all every lash point, in the order they are measured in
 * @param sample what the plan names; one of no point of this head counts for nothing
 * @returns null where every point is measured
 * @example pointsOfLook(['1I', '1E', '2I', '2E'], ['1I'], ['2E']) // ['1I', '2E']
 */
export function pointsOfLook(
  all: readonly string[],
  sample: readonly string[],
  suspects: readonly string[],
): readonly string[] | null {
  if (!all.some((point) => sample.includes(point))) return null;
  const chosen = all.filter((point) => sample.includes(point) || suspects.includes(point));
  return chosen.length === all.length ? null : chosen;
}

/**
 * Says which points of a recheck are still to be measured before it is judged.
 *
 * Rule: our own. A sample that holds speaks for the head; one point of it that does not, or that nobody can decide, and the
 * whole head is measured.
 *
 * @param look the points of a short look; null where every point is measured
 * @param read the newest reading of each point that proves anything
 * @example leftOfLook(['1I', '1E', '2I'], ['1I'], [{ point: '1I', verdict: 'tight' }]) // ['1E', '2I']
 */
export function leftOfLook(
  all: readonly string[],
  look: readonly string[] | null,
  read: readonly { readonly point: string; readonly verdict: string }[],
): readonly string[] {
  const measured = new Set(read.map(({ point }) => point));
  const holds = read.every(({ verdict }) => verdict === 'in-spec');
  return (look && holds ? look : all).filter((point) => !measured.has(point));
}
