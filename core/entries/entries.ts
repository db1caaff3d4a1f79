/** Lines that one hand wrote at one moment. */
export interface Entry<Line> {
  readonly id: string;
  readonly by: string;
  readonly at: string;
  readonly lines: readonly Line[];
}

/** A line as it stands, who wrote it, and what stood there before it. */
export interface Standing<Line> {
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
 * @example standingLines(entries, ledgerKey).get('cover bolt')?.line.out // 8
 */
export function standingLines<Line>(
  entries: readonly Entry<Line>[],
  keyOf: (line: Line) => string,
): ReadonlyMap<string, Standing<Line>> {
  const ordered = entries.toSorted((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0));
  const standing = new Map<string, Standing<Line>>();
  for (const { id, by, at, lines } of ordered)
    for (const line of lines) {
      const key = keyOf(line);
      const old = standing.get(key);
      standing.set(key, {
        line,
        id,
        by,
        at,
        before: old ? { line: old.line, by: old.by, at: old.at } : null,
      });
    }
  return standing;
}
