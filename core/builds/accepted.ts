import type { KeptReading, Verdict } from '../measuring/index.ts';
import { lastDone } from './lastChange.ts';
import type { KeptBuild } from './standing.ts';
import { stageMeasuring } from './stages.ts';

/** Verdicts that a lead may let stand: at an edge, or wide. A gap that is too small burns a valve and is never let stand. */
export const ACCEPTABLE: ReadonlySet<Verdict> = new Set(['undecided-low', 'undecided-high', 'loose']);

const MARK = 'accepted ';

/**
 * Names the check by which a lead lets a point stand as it is, which was left alone with a reason.
 *
 * @example acceptance('3E') // 'accepted 3E'
 */
export const acceptance = (point: string): string => `${MARK}${point}`;

/**
 * Says which point a check lets stand; null where it is another kind of check.
 *
 * @example pointAccepted('accepted 3E') // '3E'
 */
export const pointAccepted = (check: string): string | null =>
  check.startsWith(MARK) ? check.slice(MARK.length) : null;

/**
 * Lists the points that a lead lets stand although nothing proves them in their band: left alone with a reason, and
 * accepted since they were last measured. Measured again, or set after all, a point has to be accepted anew.
 *
 * Rule: "at the edge, watched" is a decision of whoever signs for the engine; it is written down, and looked at sooner.
 *
 * @param proofs what proves each point, see `provenBy`
 * @example acceptedPoints(build, provenBy(build)).has('3E')
 */
export function acceptedPoints(
  { settings, ticks }: Pick<KeptBuild, 'settings' | 'ticks'>,
  proofs: ReadonlyMap<string, KeptReading>,
): ReadonlySet<string> {
  const proving = stageMeasuring('proved').key;
  const accepted = ticks.flatMap(({ stage, check, done, at }) => {
    const point = done && stage === proving ? pointAccepted(check) : null;
    if (point === null || !mayAccept(point, { settings, proofs })) return [];
    return Date.parse(at) >= Date.parse(proofs.get(point)!.takenAt) ? [point] : [];
  });
  return new Set(accepted);
}

/**
 * Says whether a lead may let a point stand: it was left alone, and what proves it says no worse than wide or undecided.
 *
 * @example mayAccept('3E', { settings: build.settings, proofs: provenBy(build) })
 */
export function mayAccept(
  point: string,
  { settings, proofs }: Pick<KeptBuild, 'settings'> & { readonly proofs: ReadonlyMap<string, KeptReading> },
): boolean {
  const proof = proofs.get(point);
  const done = lastDone(settings, point);
  return proof !== undefined && done?.kind === 'left' && ACCEPTABLE.has(proof.verdict);
}
