import { mmFromTenths } from '../length/index.ts';
import {
  intervalOf,
  judge,
  limitsFromMm,
  limitsHeld,
  type HeldAgainst,
  measuredPoints,
  type MeasuredPoint,
  type Reading,
  type Verdict,
  type WhenHot,
} from '../measuring/index.ts';
import { lashPoints, type FoundBand, type Pattern } from '../sheets/index.ts';
import type { SettingState } from './buildState.ts';
import { lastChange } from './lastChange.ts';
import type { RoundKind } from './stages.ts';

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
  /** null where the sheet had none */
  readonly limits: { readonly min: number; readonly max: number; readonly allowOver: number } | null;
}

interface RoleLimits {
  readonly role: string;
  readonly min: number;
  readonly max: number;
  readonly allowOver?: number;
  readonly asFound?: FoundBand | null;
  readonly whenHot?: WhenHot | null;
}

/**
 * Says what a reading of a round is held against at a point. As found, and at a recheck, by what is left alone; where it is set, by what
 * it is set to; and at proving whatever was touched by what it is set to, and the rest still as it was found.
 *
 * @param settings of the build
 * @example heldAgainst('proved', '2I', build.settings) // 'left'
 * Rule: a maker's *leave alone between* is for what nobody touched.
 */
export function heldAgainst(kind: RoundKind, point: string, settings: readonly SettingState[]): HeldAgainst {
  if (kind === 'as-set') return 'set';
  if (kind === 'proved') return lastChange(settings, point) === null ? 'left' : 'set';
  return kind === 'recheck' ? 'in-service' : 'found';
}

/** A sheet as a build goes by it. */
type HeldSheet = Parameters<typeof measuredPoints>[0];

/**
 * Lists the points of a sheet with the limits that a reading of a round is held against at each of them.
 *
 * @param kind of the round, or of the one that a reading at each point belongs to; null where none is looked at: what is set to
 * @example pointsHeld(sheet, 'as-found', build.settings)[0].limits
 */
export function pointsHeld(
  sheet: HeldSheet,
  kind: RoundKind | ((point: string) => RoundKind) | null,
  settings: readonly SettingState[],
): readonly MeasuredPoint[] {
  const toSet = measuredPoints(sheet);
  if (
    kind === null ||
    kind === 'as-set' ||
    sheet.limits.every(({ asFound, whenHot }) => !asFound && !whenHot)
  )
    return toSet;
  return toSet.map(({ key }, index) => {
    const of = typeof kind === 'string' ? kind : kind(key);
    return measuredPoints(sheet, heldAgainst(of, key, settings))[index]!;
  });
}

/** What is known by now that a reading is judged by, besides what was felt. */
export interface KnownByNow {
  /** of every role, in mm, see `effectiveLimits` */
  readonly limits: readonly RoleLimits[];
  /** points at which a hollow is worn in, see `hollowAt` */
  readonly hollow: ReadonlySet<string>;
  /** what was done at the points of the build */
  readonly settings: readonly SettingState[];
}

/**
 * Judges the readings of rounds by what is known by now: the limits that the build goes by, whose aim may have been changed, and
 * the hollows that were found, also after they were taken. What stays the same stays the same object.
 *
 * @example judgedAgain([], pattern, { limits, hollow: new Set(), settings: [] }) // []
 */
export function judgedAgain<Round extends { readonly kind: RoundKind; readonly readings: readonly Judged[] }>(
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
      if (!band) return reading;
      const held = limitsHeld(band, heldAgainst(round.kind, reading.point, known.settings));
      return judgedBy(reading, held, known.hollow.has(reading.point));
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
  const sameLimits = row.limits?.min === min && row.limits.max === max && row.limits.allowOver === allowOver;
  return same && sameLimits ? row : { ...row, ...now, limits: { min, max, allowOver } };
}

/** A list with each of its entries changed; the same list where none is. */
function sameOr<Entry>(list: readonly Entry[], change: (entry: Entry) => Entry): readonly Entry[] {
  const changed = list.map(change);
  return changed.every((entry, index) => entry === list[index]) ? list : changed;
}
