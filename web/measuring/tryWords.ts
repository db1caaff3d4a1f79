import { TRY_WORDS, type Foreseen, type Try } from '@zero-lash/core/measuring';
import { tenthsFromMm, type ShopUnit } from '@zero-lash/core/length';
import { STATE_WORDS } from '../drawings/states.ts';

const MOST_TYPED = 80;

/**
 * Tries in a line, as the record keeps them: `0.13 goes, 0.15 won’t`, or `5.0 goes, 6.0 won’t, in thou`; `taken back` where
 * none is left.
 */
export function triesInWords(
  tries: readonly Try[],
  figure: (mm: number) => string,
  unit: ShopUnit = 'mm',
): string {
  if (tries.length === 0) return 'taken back';
  const each = tries.map(({ thickness, result }) =>
    thickness === 0 ? 'rocks at the gap' : `${figure(thickness)} ${TRY_WORDS[result]}`,
  );
  const words = [...each, ...(unit === 'mm' ? [] : [`in ${unit}`])].join(', ');
  return words.length <= MOST_TYPED ? words : `…${words.slice(-(MOST_TYPED - 1))}`;
}

/** What each outcome of a try would mean: `goes: in spec · won’t: tight`. */
export function foreseenInWords(foreseen: readonly Foreseen[]): string {
  return foreseen
    .filter(({ result }) => result !== 'drags')
    .map(({ result, verdict }) => `${TRY_WORDS[result]}: ${STATE_WORDS[verdict]}`)
    .join(' · ');
}

/** The thickness of blades held together, in mm, added exactly. */
export function heldThickness(blades: readonly number[]): number {
  return blades.reduce((sum, blade) => sum + tenthsFromMm(blade), 0) / 10_000;
}
