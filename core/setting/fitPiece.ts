import { mmFromTenths, tenthsFromMm } from '../length/index.ts';
import { whyUnknown, type KnownGap } from '../measuring/index.ts';
import { guardedBand, ON_BOUNDARY, pieceOutcome, pieceWanted, type PieceStatus } from './pieceOutcome.ts';

/** One point, the piece it was measured with, and the sizes there are. Lengths in mm. */
export interface FitPieceInput extends KnownGap {
  readonly installed: number;
  readonly sizes: readonly number[];
  readonly min: number;
  readonly max: number;
  readonly target: number;
  /** see `gainOf`; 1 if absent */
  readonly gain?: number | undefined;
  /** how far inside the band to keep, a quarter of it at the most; 0 if absent */
  readonly guard?: number | undefined;
}

/** Why no piece is named. */
export type NoPiece =
  'no-blade' | 'open' | 'conflict' | 'under-thinnest' | 'over-thickest' | 'between-sizes' | 'measure-closer';

/** The piece to fit and what it leaves, or why there is none. Lengths in mm, not rounded. */
export type FitPiece =
  | {
      readonly size: number;
      readonly why: Exclude<PieceStatus, 'unsolved'>;
      /** the thickness that would leave the target exactly, made or not */
      readonly wanted: number;
      readonly lo: number;
      readonly hi: number;
    }
  | {
      readonly size: null;
      readonly why: NoPiece;
      /** absent where nothing may be worked out from what was measured */
      readonly wanted?: number;
    };

/**
 * Says which piece to fit at one point: the plan's own rule for one. The maker's own chart governs before it, see `chartSays`.
 *
 * Rule: of the sizes the certain ones come before the likely ones, then the result nearest the target, then the thinner, which
 * errs loose. Where no blade went, nothing bounds the gap, or the tries contradict, nothing is worked out.
 *
 * @throws RangeError where there are no sizes, or the gain is not above 0
 * @example fitPiece({ lo: 0.14, hi: 0.15, installed: 1.8, sizes: [1.8, 1.85], min: 0.11, max: 0.19, target: 0.15 }).size // 1.8
 */
export function fitPiece(input: FitPieceInput): FitPiece {
  const { sizes, gain = 1, guard = 0 } = input;
  if (sizes.length === 0) throw new RangeError('sizes must not be empty');
  if (!(gain > 0)) throw new RangeError('gain must be above 0');
  const unknown = whyUnknown(input);
  if (unknown) return { size: null, why: unknown };
  const gap = {
    lo: tenthsFromMm(input.lo),
    hi: tenthsFromMm(input.hi!),
    installed: tenthsFromMm(input.installed),
    gain,
  };
  const limits = { min: tenthsFromMm(input.min), max: tenthsFromMm(input.max) };
  const band = guardedBand(limits, tenthsFromMm(input.target), tenthsFromMm(guard));
  const wanted = pieceWanted(gap, band.target);
  const all = sizes
    .map(tenthsFromMm)
    .sort((a, b) => a - b)
    .map((size) => ({ size, ...pieceOutcome(gap, size, band) }));
  for (const why of ['certain', 'likely'] as const) {
    const [first, ...rest] = all.filter(({ status }) => status === why);
    if (!first) continue;
    const best = rest.reduce(
      (nearest, each) => (each.deviation < nearest.deviation - ON_BOUNDARY ? each : nearest),
      first,
    );
    return {
      size: mmFromTenths(best.size),
      why,
      wanted: wanted / 10_000,
      lo: best.lo / 10_000,
      hi: best.hi / 10_000,
    };
  }
  const heldOpen = all.some(
    ({ lo, hi }) =>
      lo < 0 && (lo + hi) / 2 >= band.from - ON_BOUNDARY && (lo + hi) / 2 <= band.to + ON_BOUNDARY,
  );
  const why = heldOpen
    ? 'measure-closer'
    : wanted < all[0]!.size - ON_BOUNDARY
      ? 'under-thinnest'
      : wanted > all.at(-1)!.size + ON_BOUNDARY
        ? 'over-thickest'
        : 'between-sizes';
  return { size: null, why, wanted: wanted / 10_000 };
}
