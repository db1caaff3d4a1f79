import { tenthsFromMm } from '../length/index.ts';
import { judge, limitsFromMm, type Verdict } from '../measuring/index.ts';
import { lashPoints, type Pattern } from '../sheets/index.ts';

/** A reading with what it was judged to be; mm. */
interface Judged {
  readonly point: string;
  readonly lo: number;
  readonly hi: number | null;
  readonly verdict: Verdict;
  readonly onLimit: boolean;
}

interface RoleLimits {
  readonly role: string;
  readonly min: number;
  readonly max: number;
  readonly allowOver?: number;
}

/**
 * Judges the readings of rounds by the limits that a build goes by now: its aim may have been changed since they were taken.
 * What stays the same stays the same object.
 *
 * @param limits of every role, in mm, see `limitsToGoBy`
 * @example judgedAnew(build.rounds, sheet.pattern, limits)
 */
export function judgedAnew<Round extends { readonly readings: readonly Judged[] }>(
  rounds: readonly Round[],
  pattern: Pattern,
  limits: readonly RoleLimits[],
): readonly Round[] {
  const byPoint = new Map(
    lashPoints(pattern).map(({ key, role }) => [key, limits.find((each) => each.role === role)]),
  );
  return sameOr(rounds, (round) => {
    const readings = sameOr(round.readings, (reading) => {
      const band = byPoint.get(reading.point);
      if (!band) return reading;
      const gap = { lo: tenthsFromMm(reading.lo), hi: reading.hi === null ? null : tenthsFromMm(reading.hi) };
      const { verdict, onLimit } = judge(gap, limitsFromMm(band));
      return verdict === reading.verdict && onLimit === reading.onLimit
        ? reading
        : { ...reading, verdict, onLimit };
    });
    return readings === round.readings ? round : { ...round, readings };
  });
}

/** A list with each of its entries changed; the same list where none is. */
function sameOr<Entry>(list: readonly Entry[], change: (entry: Entry) => Entry): readonly Entry[] {
  const changed = list.map(change);
  return changed.every((entry, index) => entry === list[index]) ? list : changed;
}
