/**
 * A length in whole tenths of a micrometre (0.0001 mm): the only unit the core adds and compares in.
 * One thou is exactly 254 of them, so neither the metric nor the inch side is ever rounded by arithmetic.
 */
export type Tenths = number;

/** Tenths of a micrometre in one of each unit a person may type. */
export const TENTHS_PER = { mm: 10_000, um: 10, thou: 254, in: 254_000 } as const;

/** A unit a length may be typed in. */
export type LengthUnit = keyof typeof TENTHS_PER;

/**
 * Turns millimetres into whole tenths of a micrometre, rounding to the nearest.
 *
 * @param mm a length in mm, of either sign
 * @returns the nearest whole number of tenths
 * @throws RangeError when `mm` is not a finite number
 * @example tenthsFromMm(0.1) + tenthsFromMm(0.2) === tenthsFromMm(0.3)
 */
export function tenthsFromMm(mm: number): Tenths {
  if (!Number.isFinite(mm)) throw new RangeError(`not a length in mm: ${mm}`);
  const tenths = Math.round(mm * TENTHS_PER.mm);
  return tenths === 0 ? 0 : tenths;
}

/**
 * Turns tenths of a micrometre into millimetres, for the wire and for drawing.
 *
 * @example mmFromTenths(1524) // 0.1524
 */
export function mmFromTenths(tenths: Tenths): number {
  return tenths / TENTHS_PER.mm;
}
