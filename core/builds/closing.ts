import { checkKey } from '../checks/index.ts';
import { passesLeft } from '../assembly/index.ts';
import { passesDone } from './assembled.ts';
import { imbalances, ledgerKey, type Imbalance, type LedgerLine } from '../parts/index.ts';
import { currentLines, type Entry } from '../entries/index.ts';
import type { BuildState, CheckState } from './buildState.ts';

/**
 * Finds what was counted out and did not come back, or came back beyond what went.
 *
 * @example partsOff([{ id: 'l1', by: 'Tobin Hask', at: at(5), lines: ledger }]).map(({ off }) => off) // [-1]
 */
export function partsOff(ledger: readonly Entry<LedgerLine>[]): readonly Imbalance[] {
  const lines = [...currentLines<LedgerLine>(ledger, ledgerKey).values()].map(({ line }) => line);
  return imbalances(lines.filter(({ dropped }) => !dropped));
}

/**
 * Says from what the count-in answers itself: every line that was counted out is counted in again, as many as went out; null where
 * nothing was counted, or something is not back.
 *
 * Rule: what the record answers ticks itself, and says from what; what only hands know is never ticked by itself.
 *
 * @example countedIn([]) // null
 */
export function countedIn(ledger: readonly Entry<LedgerLine>[]): string | null {
  const lines = [...currentLines<LedgerLine>(ledger, ledgerKey).values()]
    .map(({ line }) => line)
    .filter(({ dropped, group, out }) => !dropped && group !== 'wanted' && (out ?? 0) > 0);
  if (lines.length === 0 || lines.some((line) => line.in !== line.out)) return null;
  const parts = lines.reduce((sum, { out }) => sum + out!, 0);
  return `from the count: ${parts} out, ${parts} in`;
}

/**
 * Says whether a lead explained a ledger as it stands now: what is counted after that is not explained by it.
 *
 * @example partsExplained(build) // false
 */
export function partsExplained({
  ledger,
  ticks,
}: {
  readonly ledger: readonly Entry<LedgerLine>[];
  readonly ticks: readonly CheckState[];
}): boolean {
  const explained = ticks.find(({ check, done }) => done && check === checkKey('ledger-explained'));
  return explained !== undefined && ledger.every(({ at }) => Date.parse(at) <= Date.parse(explained.at));
}

/**
 * Names the passes of tightening that were begun and not finished.
 *
 * @example passesOpen(build) // []
 */
export function passesOpen(build: Pick<BuildState, 'sheet' | 'settings' | 'ticks'>): readonly string[] {
  return passesLeft(build.sheet.torques ?? [], passesDone(build)).map(
    ({ fastening, number, of, step }) => `${fastening}, pass ${number} of ${of} (${step.asWritten})`,
  );
}
