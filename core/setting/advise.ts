import { mmFromTenths, tenthsFromMm, type Tenths } from '../length/index.ts';
import { endsOf, judge, whyUnknown, type Interval, type Limits, type Verdict } from '../measuring/index.ts';
import { leverageOf, meansFor, pieceGain, type Pattern, type Role } from '../sheets/index.ts';
import { fitPiece, type NoPiece } from './fitPiece.ts';
import { chartSays, type MakersChart } from './makersChart.ts';
import { guardedBand, pieceOutcome, pieceWanted, type PieceStatus } from './pieceOutcome.ts';
import { screwTurn, type ScrewTurn, screwSideOf } from './screwTurn.ts';
import { sizesOf } from './sizes.ts';

/** A point as it was measured, and what it is to be set to. Lengths in tenths of a micrometre. */
export interface PointToSet {
  readonly pattern: Pattern;
  readonly role: Role;
  readonly measured: Interval | null;
  readonly target: Tenths;
  readonly limits: Limits;
  /** the piece in place; null where it is not known, or there is none */
  readonly installed: Tenths | null;
  /** the maker's own chart for the role, which governs before anything is worked out */
  readonly chart?: MakersChart | undefined;
  /** how far inside the band a piece is to leave the gap; 0 if absent */
  readonly guard?: Tenths | undefined;
  /** by how much this person's gap grows as the lock nut is tightened, see `lockShift`; 0 if absent */
  readonly lockShift?: number | undefined;
}

/** What to do at one point to bring it to its target. Lengths in tenths of a micrometre, not rounded where worked out. */
export type SettingAdvice =
  | { readonly kind: 'turn'; readonly turn: ScrewTurn }
  /**
   * which way it is turned is known, and how far is not: its thread, or a ratio that it hangs on, is not on the sheet; or what was
   * read does not decide whether it is turned at all
   */
  | { readonly kind: 'by-blade'; readonly direction: ScrewTurn['direction']; readonly undecided?: true }
  | {
      readonly kind: 'fit';
      readonly size: Tenths;
      readonly installed: Tenths;
      /** the maker's chart says so; worked out otherwise */
      readonly by: 'chart' | 'difference';
      readonly status: PieceStatus;
      readonly leaves: { readonly lo: number; readonly hi: number };
      readonly wanted: number | null;
    }
  | {
      readonly kind: 'no-piece';
      /** `sizes-unknown`: nobody knows which are made */
      readonly why: Exclude<NoPiece, 'no-blade' | 'open' | 'conflict'> | 'sizes-unknown';
      readonly wanted: number;
    }
  /** the maker's chart prints no piece for such a gap */
  | { readonly kind: 'chart-has-none' }
  | { readonly kind: 'need-installed' }
  | { readonly kind: 'need-reading' }
  | { readonly kind: 'no-blade-went' };

/**
 * Says what to do at a point: how far to turn its adjuster, or which graded piece to fit. For a piece the maker's own chart
 * governs; else it is the plan's rule for one point, see `fitPiece`.
 *
 * Where no blade went nothing bounds the gap from below, and the valve may be held open by any amount: nothing is worked out
 * from that. It is backed off, or a thinner piece fitted, until a blade goes; then it is measured.
 *
 * @returns `no-blade-went` there, `need-reading` where nothing bounds the gap or the tries contradict, `need-installed` where the piece is not known
 * @example adviseSetting({ pattern, role: 'intake', measured: { lo: 700, hi: 800 }, target: 1500, limits, installed: null })
 */
export function adviseSetting(at: PointToSet): SettingAdvice {
  const { pattern, role, measured, target, limits, installed, chart, guard = 0, lockShift = 0 } = at;
  const means = meansFor(pattern, role);
  if (!measured) return { kind: 'need-reading' };
  const unknown = whyUnknown(measured);
  if (unknown) return { kind: unknown === 'no-blade' ? 'no-blade-went' : 'need-reading' };
  const [lo, hi] = [measured.lo, measured.hi!];
  if (means.kind === 'screw' || means.kind === 'pivot-nut') {
    const direction = wayTo(target - lockShift * 10_000, (lo + hi) / 2);
    // an angle would be worked out from the middle of what nobody knows
    if (judge(measured, limits).verdict.startsWith('undecided'))
      return { kind: 'by-blade', direction, undecided: true };
    const turn = screwTurn({
      measured: mmFromTenths((lo + hi) / 2),
      target: mmFromTenths(target),
      pitch: means.pitch,
      screwSide: screwSideOf(means),
      rockerRatio: means.rockerRatio,
      gapAt: leverageOf(pattern, role).gapAt,
      lockShift,
    });
    if (turn === null) return { kind: 'by-blade', direction };
    return { kind: 'turn', turn };
  }
  if (installed === null) return { kind: 'need-installed' };
  const gain = pieceGain(pattern, role);
  const ends = endsOf(limits);
  const fit = (size: Tenths, by: 'chart' | 'difference', wanted: number | null): SettingAdvice => {
    const left = pieceOutcome({ lo, hi, installed, gain }, size, guardedBand(ends, target, guard));
    const { status } = left;
    return { kind: 'fit', size, installed, by, status, leaves: { lo: left.lo, hi: left.hi }, wanted };
  };
  const printed =
    chart && chartSays(chart, { lo: mmFromTenths(lo), hi: mmFromTenths(hi) }, mmFromTenths(installed));
  if (printed === null) return { kind: 'chart-has-none' };
  if (printed !== undefined)
    return fit(printed === 'keep' ? installed : tenthsFromMm(printed), 'chart', null);
  if (means.sizes === null)
    return {
      kind: 'no-piece',
      why: 'sizes-unknown',
      wanted: pieceWanted({ lo, hi, installed, gain }, target),
    };
  const own = fitPiece({
    ...{ lo: mmFromTenths(lo), hi: mmFromTenths(hi), installed: mmFromTenths(installed), gain },
    floor: true,
    sizes: sizesOf(means.sizes).map(mmFromTenths),
    min: mmFromTenths(ends.min),
    max: mmFromTenths(ends.max),
    target: mmFromTenths(target),
    guard: mmFromTenths(guard),
  });
  if (own.size !== null) return fit(tenthsFromMm(own.size), 'difference', own.wanted * 10_000);
  return { kind: 'no-piece', why: own.why as 'under-thinnest', wanted: own.wanted! * 10_000 };
}

/** Which way an adjuster is turned to bring a gap to its target; tenths of a micrometre. */
const wayTo = (target: number, gap: number): ScrewTurn['direction'] =>
  Math.abs(target - gap) < 1 ? 'none' : target > gap ? 'loosen' : 'tighten';

/** What a piece would leave at a point; tenths of a micrometre, not rounded. */
export interface PieceLeaves {
  readonly lo: number;
  readonly hi: number;
  readonly verdict: Verdict;
  /** its lower end is below nothing: the valve might be held open */
  readonly heldOpen: boolean;
}

/**
 * Says what a piece leaves at a point, whichever it is: what is shown beside the one that is named, typed, planned or was fitted.
 *
 * @returns null where nothing may be worked out from what was measured, or what is in is not known
 * @example whatItLeaves({ pattern, role: 'intake', measured: { lo: 700, hi: 800 }, limits, installed: 22500 }, 21500)?.lo // 1700
 */
export function whatItLeaves(
  { pattern, role, measured, limits, installed }: Omit<PointToSet, 'target'>,
  size: Tenths,
): PieceLeaves | null {
  if (!measured || whyUnknown(measured) !== null || installed === null) return null;
  const { min, max } = endsOf(limits);
  const gap = { lo: measured.lo, hi: measured.hi!, installed, gain: pieceGain(pattern, role) };
  const { lo, hi } = pieceOutcome(gap, size, { from: min, to: max, target: (min + max) / 2 });
  const left = { lo: Math.round(lo), hi: Math.round(hi), floor: lo >= 0 };
  return { lo, hi, heldOpen: lo < 0, verdict: judge(left, limits).verdict };
}

/**
 * Names one piece so thin that a blade will surely go with it, for a point where no blade went: how far it is held open nobody
 * knows. It is the thinnest with which the gap can still be measured by this bench, wherever it lies.
 *
 * @param at what would not go, the piece that is in, and how much of a change is seen at the gap; tenths of a micrometre
 * @param sizes thicknesses made
 * @param reach the widest gap the bench can measure
 * @returns null where nothing thinner is made
 * @example surelyThin({ hi: 500, installed: 25000, gain: 1 }, [23000, 24000, 25000], 6000) // 23000
 */
export function surelyThin(
  { hi, installed, gain }: { readonly hi: Tenths; readonly installed: Tenths; readonly gain: number },
  sizes: readonly Tenths[],
  reach: Tenths,
): Tenths | null {
  const thinner = sizes.filter((size) => size < installed).sort((a, b) => a - b);
  return thinner.find((size) => hi + gain * (installed - size) <= reach) ?? thinner.at(-1) ?? null;
}
