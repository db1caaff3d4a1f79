import type { Tenths } from '../length/index.ts';
import { readMark } from './readMark.ts';

/** A graded piece that is in at a point; its thickness in tenths of a micrometre. */
export interface PieceIn {
  readonly point: string;
  readonly thickness: Tenths;
  /** what stands on it; empty where nobody wrote that down */
  readonly mark: string;
}

/** How near two thicknesses by micrometer are one and the same: a micrometre. */
const SAME: Tenths = 10;

/**
 * Finds where a piece is in already. A piece that is known by a mark of its own, or by a thickness that none is made in, is one
 * thing and in one place; a size that is made, or stamped on many, says nothing of which piece it is.
 *
 * @param piece what is being fitted
 * @param others what is in at every other point of the system
 * @param sizes every size made, in tenths of a micrometre
 * @param unit in which they are stamped
 * @returns the point it is in at; null where it is not known to be in anywhere
 * @example alreadyIn({ thickness: 23470, mark: '' }, [{ point: '3Ea', thickness: 23470, mark: '' }], [], 'mm') // '3Ea'
 */
export function alreadyIn(
  piece: Omit<PieceIn, 'point'>,
  others: readonly PieceIn[],
  sizes: readonly Tenths[],
  unit: 'mm' | 'thou',
): string | null {
  const ownMark = ({ mark }: Pick<PieceIn, 'mark'>) =>
    mark.trim() === '' || readMark(mark, sizes, unit) !== null
      ? null
      : mark.trim().toLocaleUpperCase('en-GB');
  const own = ownMark(piece);
  const byMicrometer = !sizes.includes(piece.thickness);
  const same = others.find((other) => {
    const mark = ownMark(other);
    if (own !== null && mark !== null) return own === mark;
    return byMicrometer && Math.abs(other.thickness - piece.thickness) < SAME;
  });
  return same?.point ?? null;
}
