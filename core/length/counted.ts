/**
 * Writes how many there are of something: one of it, or so many.
 *
 * @param many the plural, where it is not made by an s
 * @example counted(1, 'engine') // '1 engine'
 * @example counted(3, 'recheck') // '3 rechecks'
 */
export const counted = (count: number, one: string, many = `${one}s`): string =>
  `${count} ${count === 1 ? one : many}`;
