import type { SizeRange } from '../sheets/index.ts';
import { tenthsFromMm, type Tenths } from '../length/index.ts';

/**
 * Lists the thicknesses a range is made in, thinnest first.
 *
 * @param range in mm; null where nobody knows what is made
 * @returns tenths of a micrometre, every step from `from` to `to`; none of a range that is not known
 * @throws RangeError when the step is not above zero or the range runs backwards
 * @example sizesOf({ from: 2.3, to: 2.4, step: 0.05 }) // [23000, 23500, 24000]
 */
export function sizesOf(range: SizeRange | null): Tenths[] {
  if (range === null) return [];
  const [from, to, step] = [range.from, range.to, range.step].map(tenthsFromMm) as [Tenths, Tenths, Tenths];
  if (!(step > 0)) throw new RangeError('step must be above 0');
  if (to < from) throw new RangeError('sizes must run from thin to thick');
  return Array.from({ length: Math.floor((to - from) / step) + 1 }, (_, i) => from + i * step);
}
