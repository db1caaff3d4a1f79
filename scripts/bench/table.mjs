/** The middle of several measurements. */
export function median(values) {
  const sorted = [...values].sort((a, b) => a - b);
  const middle = Math.floor(sorted.length / 2);
  return sorted.length % 2 === 1 ? sorted[middle] : (sorted[middle - 1] + sorted[middle]) / 2;
}

/** The time under which all but a twentieth are. */
export const p95 = (figures) => figures.toSorted((a, b) => a - b)[Math.floor(figures.length * 0.95)];

/** Prints rows of what was measured, what it came to and what is aimed for. */
export function printTable(rows) {
  const head = ['measured', 'result', 'aim', ''];
  const cells = [
    head,
    ...rows.map(({ what, result, aim, met }) => [what, result, aim, met ? 'met' : 'MISSED']),
  ];
  const widths = head.map((_, column) => Math.max(...cells.map((row) => row[column].length)));
  for (const row of cells)
    process.stdout.write(
      `${row
        .map((cell, column) => cell.padEnd(widths[column]))
        .join('  ')
        .trimEnd()}\n`,
    );
}
