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
