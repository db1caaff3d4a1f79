/** A cost of several figures, the first of which counts before all others, and so on. */
export type Cost = readonly number[];

/**
 * Gives each row a column of its own so that the costs add up to the least, figure by figure: the first figure's sum first, of
 * equal ones the second's, and so on. Exact.
 *
 * Rule: the Hungarian method, by shortest ways from row to row over what each may have. It needs nothing of costs but that they
 * can be added, taken away and compared, which costs of several figures can as well.
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
  if (columns < rows) throw new RangeError('there are fewer columns than rows');
  const size = Math.max(0, ...costs.map((row) => Math.max(0, ...row.map((cost) => cost?.length ?? 0))));
  const { starts, ends, flat } = edgesOf(costs, size);
  const ofRow = new Float64Array(rows * size);
  const ofColumn = new Float64Array(columns * size);
  /** the row each column belongs to; −1 where it is free */
  const owner = new Int32Array(columns).fill(-1);
  const cameFrom = new Int32Array(columns);
  const far = new Float64Array(columns * size);
  /** in which row's turn a column was seen last, and in which it was reached */
  const seen = new Int32Array(columns).fill(-1);
  const reached = new Int32Array(columns).fill(-1);
  const walked = new Float64Array(size);
  const next = new Float64Array(size);
  for (let row = 0; row < rows; row += 1) {
    const edge: number[] = [];
    const path: number[] = [];
    walked.fill(0);
    let at = row;
    let column = -1;
    do {
      for (let one = starts[at]!; one < starts[at + 1]!; one += 1) {
        const j = ends[one]!;
        if (reached[j] === row) continue;
        for (let k = 0; k < size; k += 1)
          next[k] = walked[k]! + flat[one * size + k]! - ofRow[at * size + k]! - ofColumn[j * size + k]!;
        if (seen[j] !== row) edge.push(j);
        else if (!isLess(next, 0, far, j * size, size)) continue;
        seen[j] = row;
        cameFrom[j] = column;
        for (let k = 0; k < size; k += 1) far[j * size + k] = next[k]!;
      }
      if (edge.length === 0) throw new RangeError('a row has no column that it may have');
      let nearest = 0;
      for (let one = 1; one < edge.length; one += 1)
        if (isLess(far, edge[one]! * size, far, edge[nearest]! * size, size)) nearest = one;
      column = edge[nearest]!;
      edge[nearest] = edge.at(-1)!;
      edge.pop();
      reached[column] = row;
      for (let k = 0; k < size; k += 1) walked[k] = far[column * size + k]!;
      at = owner[column]!;
      if (at >= 0) path.push(column);
    } while (at >= 0);
    for (let k = 0; k < size; k += 1) ofRow[row * size + k]! += walked[k]!;
    for (const j of path)
      for (let k = 0; k < size; k += 1) {
        const left = walked[k]! - far[j * size + k]!;
        ofRow[owner[j]! * size + k]! += left;
        ofColumn[j * size + k]! -= left;
      }
    while (cameFrom[column]! >= 0) {
      owner[column] = owner[cameFrom[column]!]!;
      column = cameFrom[column]!;
    }
    owner[column] = row;
  }
  const found = new Array<number>(rows).fill(-1);
  owner.forEach((row, j) => {
    if (row >= 0) found[row] = j;
  });
  return found;
}

/** What each row may have: its columns one after another, with their costs. */
function edgesOf(costs: readonly (readonly (Cost | null)[])[], size: number) {
  const starts = new Int32Array(costs.length + 1);
  costs.forEach((row, i) => {
    starts[i + 1] = starts[i]! + row.filter((cost) => cost !== null).length;
  });
  const ends = new Int32Array(starts.at(-1)!);
  const flat = new Float64Array(ends.length * size);
  let one = 0;
  for (const row of costs)
    row.forEach((cost, j) => {
      if (cost === null) return;
      ends[one] = j;
      for (let k = 0; k < cost.length; k += 1) flat[one * size + k] = cost[k]!;
      one += 1;
    });
  return { starts, ends, flat };
}

function isLess(a: Float64Array, from: number, b: Float64Array, at: number, size: number): boolean {
  for (let k = 0; k < size; k += 1) {
    const difference = a[from + k]! - b[at + k]!;
    if (difference !== 0) return difference < 0;
  }
  return false;
}
