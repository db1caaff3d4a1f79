import type { Bank, Pattern } from '../sheets/index.ts';

/** A bolt by its place on a head, seen from above with the front at the left; units of one cylinder's pitch. */
export interface BoltPlace {
  readonly id: string;
  readonly x: number;
  readonly y: number;
}

/**
 * Places the bolts of a head as most heads have them: four round every bore, shared between neighbours. They are numbered
 * from the front, the near row first.
 *
 * @example boltPlaces(inlineFour, 'A').length // 10
 */
export function boltPlaces(pattern: Pattern, bank: Bank): readonly BoltPlace[] {
  const cylinders = pattern.cylinders.filter((cylinder) => cylinder.bank === bank).length;
  const columns = Array.from({ length: cylinders + 1 }, (_, index) => index);
  return [1, 0].flatMap((y, row) => columns.map((x) => ({ id: String(row * columns.length + x + 1), x, y })));
}
