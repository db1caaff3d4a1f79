import type { ShopUnit } from '@zero-lash/core/length';
import type { Try } from '@zero-lash/core/measuring';
import type { BenchTools } from '../instruments/useBench.ts';
import { triesInWords } from './tryWords.ts';
import type { Offer } from './useMeasure.ts';

/** Tries as they are offered to be kept, with the blades they were made by. */
export const triesOffer = (
  tries: readonly Try[],
  { repeatability, bladeSet }: Pick<BenchTools, 'repeatability' | 'bladeSet'>,
  figure: (mm: number) => string,
  unit: ShopUnit,
): Offer => ({
  reading: { kind: 'tries', tries, repeatability },
  asTyped: triesInWords(tries, figure, unit),
  instrumentId: bladeSet?.id ?? null,
});
