import type { Tenths } from '../length/index.ts';
import type { Verdict } from '../measuring/index.ts';
import type { SizeRange } from '../sheets/index.ts';
import { sizesOf } from './sizes.ts';

/** What looks wrong with a piece that is written down as fitted or as in there now. */
export interface PieceWarning {
  readonly code: 'not-made' | 'wrong-way' | 'not-on-step';
  /** the thickness that was likely meant; null where nothing nearby is */
  readonly meant: Tenths | null;
}

/** How far a micrometer may be from the size a piece is made in before that is asked about: 0.01 mm. */
const OFF_STEP = 100;

/**
 * Says what looks wrong with the thickness of a piece, before it is written down. A warning never blocks: it asks.
 *
 * Out of the range made comes first, with the figure of the same digits that is in it (24.5 and 0.245 for 2.45); then a
 * piece that moves the gap the wrong way (a thicker one in a tight valve, a thinner one in a loose one); then one between
 * the sizes made, by more than a micrometer reads wrong.
 *
 * @param thickness in tenths of a micrometre
 * @param sizes what is made; null where nobody knows, and only the way it moves the gap is asked about
 * @param was the piece it takes the place of, and what the gap was with it; null for a piece that was there already
 * @returns null where nothing looks wrong
 * @example pieceWarning(245000, sizes, null) // { code: 'not-made', meant: 24500 }
 */
export function pieceWarning(
  thickness: Tenths,
  sizes: SizeRange | null,
  was: { readonly installed: Tenths; readonly verdict: Verdict } | null,
): PieceWarning | null {
  const made = sizesOf(sizes);
  if (made.length === 0) return was && movesWrong(thickness, was) ? { code: 'wrong-way', meant: null } : null;
  const [thinnest, thickest] = [made[0]!, made.at(-1)!];
  const inRange = (size: Tenths) => size >= thinnest - OFF_STEP && size <= thickest + OFF_STEP;
  const near = (size: Tenths) =>
    made.reduce((best, each) => (Math.abs(each - size) < Math.abs(best - size) ? each : best));
  if (!inRange(thickness)) {
    const meant = [thickness / 10, thickness * 10, thickness / 100, thickness * 100].find(
      (size) => Number.isInteger(size) && inRange(size),
    );
    return { code: 'not-made', meant: meant ?? null };
  }
  if (was && movesWrong(thickness, was)) return { code: 'wrong-way', meant: null };
  const nearest = near(thickness);
  return Math.abs(nearest - thickness) > OFF_STEP ? { code: 'not-on-step', meant: nearest } : null;
}

/** Whether a piece moves the gap further out: a thicker one in a tight valve, a thinner one in a loose one. */
function movesWrong(
  thickness: Tenths,
  { installed, verdict }: { readonly installed: Tenths; readonly verdict: Verdict },
): boolean {
  const thicker = thickness - installed;
  return (verdict === 'tight' && thicker > 0) || (verdict === 'loose' && thicker < 0);
}
