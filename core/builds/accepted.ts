import { subjectOf } from '../checks/index.ts';
import type { ReadingState, Verdict } from '../measuring/index.ts';
import { lastDone, unreachedPoints } from './lastChange.ts';
import type { BuildState } from './buildState.ts';
import { PROVING } from './stages.ts';

/** Verdicts that a lead may let stand: at an edge, or wide. A gap that is too small burns a valve and is never let stand. */
export const ACCEPTABLE: ReadonlySet<Verdict> = new Set(['undecided-low', 'undecided-high', 'loose']);

/**
 * Lists the points that a lead lets stand although nothing proves them in their band: left alone with a reason, and
 * accepted since they were last measured. Measured again, or set after all, a point has to be accepted again.
 *
 * Rule: "at the edge, watched" is a decision of whoever signs for the engine; it is written down, and looked at sooner.
 *
 * @param proofs what proves each point, see `provenBy`
 * @example acceptedPoints(build, provenBy(build)).has('3E')
 */
export function acceptedPoints(
  { settings, ticks, rounds }: Pick<BuildState, 'settings' | 'ticks' | 'rounds'>,
  proofs: ReadonlyMap<string, ReadingState>,
): ReadonlySet<string> {
  const accepted = ticks.flatMap(({ stage, check, done, at }) => {
    const point = done && stage === PROVING ? subjectOf('accepted', check) : null;
    if (point === null || !mayAccept(point, { settings, rounds, proofs })) return [];
    const since = proofs.get(point)?.takenAt ?? lastDone(settings, point)!.at;
    return Date.parse(at) >= Date.parse(since) ? [point] : [];
  });
  return new Set(accepted);
}

/**
 * Says whether a lead may let a point stand: it was left alone, and what proves it says no worse than wide or undecided; or it cannot
 * be reached, and nothing at all is known of it.
 *
 * @example mayAccept('3E', { ...build, proofs: provenBy(build) })
 */
export function mayAccept(
  point: string,
  {
    settings,
    rounds,
    proofs,
  }: Pick<BuildState, 'settings' | 'rounds'> & { readonly proofs: ReadonlyMap<string, ReadingState> },
): boolean {
  const proof = proofs.get(point);
  if (proof === undefined) return unreachedPoints({ settings, rounds }).includes(point);
  return lastDone(settings, point)?.kind === 'left' && ACCEPTABLE.has(proof.verdict);
}
