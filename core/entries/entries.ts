/** Lines that one hand wrote at one moment. */
export interface Entry<Line> {
  readonly id: string;
  readonly by: string;
  readonly at: string;
  readonly lines: readonly Line[];
}

/** A line as it stands, who wrote it, and what stood there before it. */
export interface CurrentLine<Line> {
  readonly line: Line;
  /** the entry it was written in */
  readonly id: string;
  readonly by: string;
  readonly at: string;
  readonly before: { readonly line: Line; readonly by: string; readonly at: string } | null;
}

/**
 * Finds what stands of lines written one after another: of each the newest, whichever came in first.
 *
 * @param keyOf what a line takes the place of
 * @example currentLines([{ id: 'e1', by: 'Tobin Hask', at: at(5), lines: ledger }], ledgerKey).size // 2
 */
export function currentLines<Line>(
  entries: readonly Entry<Line>[],
  keyOf: (line: Line) => string,
): ReadonlyMap<string, CurrentLine<Line>> {
  const ordered = entries.toSorted((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0));
  const current = new Map<string, CurrentLine<Line>>();
  for (const { id, by, at, lines } of ordered)
    for (const line of lines) {
      const key = keyOf(line);
      const old = current.get(key);
      current.set(key, {
        line,
        id,
        by,
        at,
        before: old ? { line: old.line, by: old.by, at: old.at } : null,
      });
    }
  return current;
}
