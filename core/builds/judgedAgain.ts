import { mmFromTenths } from '../length/index.ts';
import { intervalOf, judge, limitsFromMm, type Reading, type Verdict } from '../measuring/index.ts';
import { lashPoints, type Pattern } from '../sheets/index.ts';

/** A reading with what it was judged to be, and by what; mm. */
interface Judged {
  readonly point: string;
  readonly reading: unknown;
  /** felt by a blade narrower than the hollow there */
  readonly narrowBlade: boolean;
  readonly lo: number;
  readonly hi: number | null;
  readonly floor: boolean;
  readonly verdict: Verdict;
  readonly onLimit: boolean;
  readonly limits: { readonly min: number; readonly max: number; readonly allowOver: number };
}

interface RoleLimits {
  readonly role: string;
  readonly min: number;
  readonly max: number;
  readonly allowOver?: number;
}

/** What is known by now that a reading is judged by, besides what was felt. */
export interface KnownByNow {
  /** of every role, in mm, see `effectiveLimits` */
  readonly limits: readonly RoleLimits[];
  /** points at which a hollow is worn in, see `hollowAt` */
  readonly hollow: ReadonlySet<string>;
}

/**
 * Judges the readings of rounds by what is known by now: the limits that the build goes by, whose aim may have been changed, and
 * the hollows that were found, also after they were taken. What stays the same stays the same object.
 *
 * @example judgedAgain([], pattern, { limits, hollow: new Set() }) // []
 */
export function judgedAgain<Round extends { readonly readings: readonly Judged[] }>(
  rounds: readonly Round[],
  pattern: Pattern,
  known: KnownByNow,
): readonly Round[] {
  const byPoint = new Map(
    lashPoints(pattern).map(({ key, role }) => [key, known.limits.find((each) => each.role === role)]),
  );
  return sameOr(rounds, (round) => {
    const readings = sameOr(round.readings, (reading) => {
      const band = byPoint.get(reading.point);
      return band ? judgedBy(reading, band, known.hollow.has(reading.point)) : reading;
    });
    return readings === round.readings ? round : { ...round, readings };
  });
}

function judgedBy<Row extends Judged>(row: Row, band: RoleLimits, hollow: boolean): Row {
  const gap = intervalOf(row.reading as Reading, hollow && !row.narrowBlade);
  const { verdict, onLimit } = judge(gap, limitsFromMm(band));
  const { min, max, allowOver = 0 } = band;
  const [lo, hi] = [mmFromTenths(gap.lo), gap.hi === null ? null : mmFromTenths(gap.hi)];
  const now = { lo, hi, floor: gap.floor, verdict, onLimit };
  const same = (Object.keys(now) as (keyof typeof now)[]).every((key) => row[key] === now[key]);
  const sameLimits = row.limits.min === min && row.limits.max === max && row.limits.allowOver === allowOver;
  return same && sameLimits ? row : { ...row, ...now, limits: { min, max, allowOver } };
}

/** A list with each of its entries changed; the same list where none is. */
function sameOr<Entry>(list: readonly Entry[], change: (entry: Entry) => Entry): readonly Entry[] {
  const changed = list.map(change);
  return changed.every((entry, index) => entry === list[index]) ? list : changed;
}
