import { TENTHS_PER, type Tenths } from './tenths.ts';

/** The two units a shop may choose to read in. */
export type ShopUnit = 'mm' | 'thou';

/**
 * Writes a length as a shop reads it: millimetres to two places, thou to one, and further places only where the
 * length has them (a 0.125 mm blade is not 0.13). Bare figures; `lengthWithUnit` adds the unit.
 *
 * @param tenths a length in tenths of a micrometre, of either sign
 * @param unit the shop's unit
 * @example formatLength(1500, 'mm') // '0.15'
 * @example formatLength(1524, 'thou') // '6.0'
 */
export function formatLength(tenths: Tenths, unit: ShopUnit): string {
  const value = tenths / TENTHS_PER[unit];
  const [least, most] = unit === 'mm' ? [2, 4] : [1, 2];
  const text = value.toFixed(most);
  let end = text.length;
  const shortest = text.indexOf('.') + 1 + least;
  while (end > shortest && text[end - 1] === '0') end -= 1;
  return text
    .slice(0, end)
    .replace(/^-(0\.0+)$/, '$1')
    .replace('-', '−');
}

/**
 * Writes a length with its unit, a thin space between: `0.15 mm`.
 *
 * @example lengthWithUnit(1500, 'mm') // '0.15\u202fmm'
 */
export function lengthWithUnit(tenths: Tenths, unit: ShopUnit): string {
  return `${formatLength(tenths, unit)}\u202f${unit}`;
}

/**
 * Writes an interval of lengths in the shop's unit; an open end reads as "or more". Where nothing was seen to bound it from below
 * only the upper end is written: nobody measured the 0 that `lo` then is, and the valve may be held off its seat. What is reckoned
 * may lie under nothing, and no gap does.
 *
 * @example formatInterval({ lo: 1300, hi: 1500 }, 'mm') // '0.13–0.15'
 * @example formatInterval({ lo: 0, hi: 400, floor: false }, 'mm') // 'under 0.04'
 * @example formatInterval({ lo: -300, hi: 200 }, 'mm') // 'less than 0.02'
 */
export function formatInterval(
  interval: { readonly lo: Tenths; readonly hi: Tenths | null; readonly floor?: boolean | undefined },
  unit: ShopUnit,
): string {
  const lo = formatLength(interval.lo, unit);
  if (interval.floor === false)
    return interval.hi === null ? 'not known' : `under ${formatLength(interval.hi, unit)}`;
  if (interval.hi !== null && interval.hi <= 0 && interval.lo < 0) return 'no gap';
  if (interval.lo < 0)
    return interval.hi === null ? 'not known' : `less than ${formatLength(interval.hi, unit)}`;
  if (interval.hi === null) return `${lo} or more`;
  if (interval.hi === interval.lo) return lo;
  return `${lo}–${formatLength(interval.hi, unit)}`;
}
