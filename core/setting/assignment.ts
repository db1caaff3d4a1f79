/** A cost of several figures, the first of which counts before all others, and so on. */
export type Cost = readonly number[];

/**
 * Gives each row a column of its own so that the costs add up to the least, figure by figure: the first figure's sum first, of
 * equal ones the second's, and so on. Exact.
 *
 * Rule: the Hungarian method. It needs nothing of costs but that they can be added, taken away and compared, which costs of
 * several figures can as well.
 *
 * @param costs rows by columns, at least as many columns as rows; null where a row may not have a column
 * @returns the column of each row
 * @throws RangeError where a row can have none
 * @example leastAssignment([[[1], [2]], [[1], [4]]]) // [1, 0]
 */
export function leastAssignment(costs: readonly (readonly (Cost | null)[])[]): number[] {
  const rows = costs.length;
  if (rows === 0) return [];
  const columns = costs[0]!.length;
  const depth = Math.max(0, ...costs.flatMap((row) => row.map((cost) => cost?.length ?? 0)));
  if (columns < rows) throw new RangeError('there are fewer columns than rows');
  // what may not be has a figure before all others: it is chosen only where nothing else can be
  const size = depth + 1;
  const flat = new Float64Array(rows * columns * size);
  costs.forEach((row, i) =>
    row.forEach((cost, j) => {
      const at = (i * columns + j) * size;
      if (cost === null) flat[at] = 1;
      else for (let figure = 0; figure < depth; figure += 1) flat[at + 1 + figure] = cost[figure] ?? 0;
    }),
  );
  const ofRow = new Float64Array((rows + 1) * size);
  const ofColumn = new Float64Array((columns + 1) * size);
  /** the row each column belongs to; row and column 0 are nobody's */
  const owner = new Int32Array(columns + 1);
  const cameFrom = new Int32Array(columns + 1);
  const least = new Float64Array((columns + 1) * size);
  const reached = new Uint8Array(columns + 1);
  const known = new Uint8Array(columns + 1);
  const step = new Float64Array(size);
  const reduced = new Float64Array(size);
  for (let row = 1; row <= rows; row += 1) {
    owner[0] = row;
    reached.fill(0);
    known.fill(0);
    let column = 0;
    do {
      reached[column] = 1;
      const from = owner[column]!;
      let next = -1;
      for (let j = 1; j <= columns; j += 1) {
        if (reached[j]) continue;
        const at = ((from - 1) * columns + j - 1) * size;
        for (let k = 0; k < size; k += 1)
          reduced[k] = flat[at + k]! - ofRow[from * size + k]! - ofColumn[j * size + k]!;
        if (!known[j] || isLess(reduced, 0, least, j * size, size)) {
          known[j] = 1;
          for (let k = 0; k < size; k += 1) least[j * size + k] = reduced[k]!;
          cameFrom[j] = column;
        }
        if (next < 0 || isLess(least, j * size, least, next * size, size)) next = j;
      }
      for (let k = 0; k < size; k += 1) step[k] = least[next * size + k]!;
      for (let j = 0; j <= columns; j += 1)
        for (let k = 0; k < size; k += 1)
          if (reached[j]) {
            ofRow[owner[j]! * size + k]! += step[k]!;
            ofColumn[j * size + k]! -= step[k]!;
          } else least[j * size + k]! -= step[k]!;
      column = next;
    } while (owner[column] !== 0);
    while (column !== 0) {
      const before = cameFrom[column]!;
      owner[column] = owner[before]!;
      column = before;
    }
  }
  const found = new Array<number>(rows).fill(-1);
  for (let j = 1; j <= columns; j += 1) if (owner[j]! > 0) found[owner[j]! - 1] = j - 1;
  if (found.some((column, row) => costs[row]![column] === null))
    throw new RangeError('a row has no column that it may have');
  return found;
}

function isLess(a: Float64Array, from: number, b: Float64Array, at: number, size: number): boolean {
  for (let k = 0; k < size; k += 1) {
    const difference = a[from + k]! - b[at + k]!;
    if (difference !== 0) return difference < 0;
  }
  return false;
}
