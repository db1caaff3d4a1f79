import { numberTyped, tenthsFromMm, type Tenths } from '../length/index.ts';

/** How far a micrometer may be from a mark before it is asked which of the two is believed: 0.01 mm. */
const APART = 100;
/** A thou is 254 tenths of a micrometre. */
const THOU = 254;
/** Within half a micrometre a mark in thou is the size that is made. */
const SAME = 5;

/**
 * Reads the thickness that is stamped on a piece, as its pattern stamps them: with a point (`2.65`), without (`265`, `2650`), or
 * the last two figures only (`65`). Only what a size that is made explains is read.
 *
 * @param sizes made, in tenths of a micrometre
 * @param unit the one they are stamped in
 * @returns null where no size explains it, or more than one does
 * @example readMark('265', [26000, 26500], 'mm') // 26500
 */
export function readMark(mark: string, sizes: readonly Tenths[], unit: 'mm' | 'thou'): Tenths | null {
  const digits = mark.replace(',', '.').replace(/[^\d.]/g, '');
  const value = numberTyped(digits);
  if (Number.isNaN(value)) return null;
  const one = unit === 'mm' ? tenthsFromMm(1) : THOU;
  const scales = digits.includes('.') ? [1] : [1, 0.1, 0.01, 0.001];
  const read = only(
    sizes.filter((size) => scales.some((scale) => Math.abs(value * scale * one - size) <= SAME)),
  );
  if (read !== null || digits.includes('.')) return read;
  return only(sizes.filter((size) => digits.length === 2 && stamped(size, one).endsWith(digits)));
}

/** A size as it is stamped in full: `265`. */
const stamped = (size: Tenths, one: number) => String(Math.round((size / one) * 100));
const only = (sizes: readonly Tenths[]) => (sizes.length === 1 ? sizes[0]! : null);

/**
 * Says whether a mark and a micrometer say so different a thickness that one of the two has to be believed.
 *
 * @example markDiffers(26500, 26200) // true
 */
export const markDiffers = (mark: Tenths, measured: Tenths): boolean => Math.abs(mark - measured) > APART;
