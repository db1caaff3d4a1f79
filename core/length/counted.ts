/**
 * Writes how many there are of something: one of it, or so many.
 *
 * @param many the plural, where it is not made by an s
 * @example counted(1, 'engine') // '1 engine'
 * @example counted(3, 'recheck') // '3 rechecks'
 */
export const counted = (count: number, one: string, many = `${one}s`): string =>
  `${count} ${count === 1 ? one : many}`;

const TEENS = new Set([11, 12, 13]);
const ENDINGS: Readonly<Record<number, string>> = { 1: 'st', 2: 'nd', 3: 'rd' };

/**
 * Says which of a row something is.
 *
 * @param place from 1
 * @example ordinal(12) // '12th'
 */
export const ordinal = (place: number): string =>
  `${place}${TEENS.has(place % 100) ? 'th' : (ENDINGS[place % 10] ?? 'th')}`;
