/** One figure of an engine's log, in its own unit of usage. */
export interface LoggedFigure {
  /** what the meter showed */
  readonly usage: number;
  /** where it is the first figure of a new meter: what the old one showed last, and the new one when it was fitted */
  readonly newMeter: { readonly lastOfOld: number; readonly startedAt: number } | null;
}

/** What an engine had run in all, and what its meter of then began at. */
export interface RunAt {
  readonly running: number;
  readonly meterFrom: number;
}

const tenth = (figure: number) => Math.round(figure * 10) / 10;

/**
 * Reckons what an engine had run in all at each figure of its log, over every meter it had.
 *
 * Rule: on one meter it runs what the meter goes on by. Across a change of meter it runs what the old one went on to until it
 * stopped, and what the new one shows above what it began at. A figure that puts a slip right takes back what the slip added.
 *
 * @param log oldest first
 * @param begin what it had run in all at the first figure, and what that meter began at; as the meter shows, and 0, where absent
 * @example runningsOf([{ usage: 990, newMeter: null }, { usage: 5, newMeter: { lastOfOld: 1000, startedAt: 0 } }]).at(-1) // { running: 1005, meterFrom: 0 }
 */
export function runningsOf(
  log: readonly LoggedFigure[],
  begin: RunAt = { running: log[0]?.usage ?? 0, meterFrom: 0 },
): RunAt[] {
  let before: (RunAt & { readonly usage: number }) | null = null;
  return log.map(({ usage, newMeter }) => {
    const now: RunAt = !before
      ? begin
      : newMeter
        ? {
            running: tenth(
              before.running + (newMeter.lastOfOld - before.usage) + (usage - newMeter.startedAt),
            ),
            meterFrom: newMeter.startedAt,
          }
        : { running: tenth(before.running + (usage - before.usage)), meterFrom: before.meterFrom };
    before = { ...now, usage };
    return now;
  });
}
