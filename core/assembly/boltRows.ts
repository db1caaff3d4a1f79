import type { BoltPlace } from './boltPlaces.ts';

/**
 * Places bolts in rows along a head as a sheet counts them: each row spread evenly over the head's length, the near row first,
 * numbered from the front.
 *
 * @example boltsInRows([5, 5]).length // 10
 */
export function boltsInRows(rows: readonly number[]): readonly BoltPlace[] {
  const length = Math.max(...rows) - 1;
  return rows.flatMap((count, row) => {
    const before = rows.slice(0, row).reduce((sum, one) => sum + one, 0);
    const pitch = count > 1 ? length / (count - 1) : 0;
    // a bolt alone in its row stands in the middle
    const from = count > 1 ? 0 : length / 2;
    return Array.from({ length: count }, (_, index) => ({
      id: String(before + index + 1),
      x: from + pitch * index,
      y: rows.length - 1 - row,
    }));
  });
}

/**
 * Says what is wrong with a maker's order of bolts; null where it names each bolt of the rows once, or is not given.
 *
 * @example sequenceComplaint([2, 2], [1, 4, 2]) // 'bolt 3 is not in the order'
 */
export function sequenceComplaint(rows: readonly number[], sequence: readonly number[]): string | null {
  if (sequence.length === 0) return null;
  const bolts = rows.reduce((sum, one) => sum + one, 0);
  if (bolts === 0) return 'say first how many bolts each row has';
  const stranger = sequence.find((bolt) => bolt < 1 || bolt > bolts);
  if (stranger !== undefined) return `there is no bolt ${stranger}: the rows have ${bolts}`;
  const twice = sequence.find((bolt, index) => sequence.indexOf(bolt) !== index);
  if (twice !== undefined) return `bolt ${twice} is in the order twice`;
  for (let bolt = 1; bolt <= bolts; bolt += 1)
    if (!sequence.includes(bolt)) return `bolt ${bolt} is not in the order`;
  return null;
}
