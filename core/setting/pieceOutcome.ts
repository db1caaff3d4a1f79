import type { Tenths } from '../length/index.ts';

/** How sure it is that a piece brings a gap in: its whole interval, its middle only, or not even that. */
export type PieceStatus = 'certain' | 'likely' | 'unsolved';

/** A gap that is known on both sides, with the piece it was measured with; tenths of a micrometre. */
export interface GapWithPiece {
  readonly lo: Tenths;
  readonly hi: Tenths;
  readonly installed: Tenths;
  /** how much the gap changes where it is measured for a change of its piece: 1 on a bucket, see `gainOf` */
  readonly gain: number;
}

/** What a piece is to bring a gap into: the band, narrowed by the guard, and the target in it; tenths of a micrometre. */
export interface PieceBand {
  readonly from: number;
  readonly to: number;
  readonly target: Tenths;
}

/** What a gap is with another piece in, in tenths of a micrometre, not rounded; an end below 0 is a valve held open. */
export interface PieceOutcome {
  readonly lo: number;
  readonly hi: number;
  readonly status: PieceStatus;
  /** how far its middle lies from the target */
  readonly deviation: number;
}

/** Within this of a boundary a length lies on it; tenths of a micrometre. */
export const ON_BOUNDARY = 1e-5;

/** A plan never lets its guard take more of the band than this, from either end. */
const MOST_GUARD = 0.25;

/**
 * Narrows a band by the guard that a plan keeps inside it, so that the next hand finds the point in spec too.
 *
 * @example guardedBand({ min: 1000, max: 2000 }, 1500, 40) // { from: 1040, to: 1960, target: 1500 }
 */
export function guardedBand(
  { min, max }: { readonly min: Tenths; readonly max: Tenths },
  target: Tenths,
  guard: number,
): PieceBand {
  const inside = Math.min(guard, (max - min) * MOST_GUARD);
  return { from: min + inside, to: max - inside, target };
}

/**
 * Works out what a gap becomes with another piece in: the one rule that pages, plans, charts and papers ask.
 *
 * Rule: a piece s leaves lo + gain × (installed − s), and hi likewise; a thicker one closes the gap, on opening and closing
 * sides alike. `likely` wants its lower end not below 0: there the valve might be held open.
 *
 * @param fitted the piece, in tenths of a micrometre
 * @example pieceOutcome({ lo: 700, hi: 800, installed: 22500, gain: 1 }, 21500, band).lo // 1700
 */
export function pieceOutcome(
  { lo, hi, installed, gain }: GapWithPiece,
  fitted: Tenths,
  { from, to, target }: PieceBand,
): PieceOutcome {
  const change = gain * (installed - fitted);
  const [least, most] = [lo + change, hi + change];
  const middle = (least + most) / 2;
  const inside = (gap: number) => gap >= from - ON_BOUNDARY && gap <= to + ON_BOUNDARY;
  const certain = inside(least) && inside(most);
  const likely = inside(middle) && least >= -ON_BOUNDARY;
  return {
    lo: least,
    hi: most,
    status: certain ? 'certain' : likely ? 'likely' : 'unsolved',
    deviation: Math.abs(middle - target),
  };
}

/**
 * Says which thickness would bring the middle of a gap to its target, made or not; tenths of a micrometre, not rounded.
 *
 * @example pieceWanted({ lo: 700, hi: 800, installed: 22500, gain: 1 }, 1500) // 21750
 */
export function pieceWanted({ lo, hi, installed, gain }: GapWithPiece, target: Tenths): number {
  return installed + ((lo + hi) / 2 - target) / gain;
}
