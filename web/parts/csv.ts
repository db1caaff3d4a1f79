import { currentLines } from '@zero-lash/core/builds';
import { ledgerKey, partsListOf, partsListRow } from '@zero-lash/core/parts';
import type { PartDisposition } from '@zero-lash/core/wear';
import { writeCsv } from '../app/writeCsv.ts';
import type { BuildView } from '../builds/buildView.ts';

/** Writes what a build replaces and wants as CSV: part, place, count, state, why. */
export function writePartsCsv(
  { sheet, ledger }: Pick<BuildView, 'sheet' | 'ledger'>,
  fates: readonly PartDisposition[],
): string {
  return writeCsv(
    ['part', 'place', 'count', 'state', 'why'],
    partsListOf(sheet, fates, currentLines(ledger, ledgerKey)).map(partsListRow),
  );
}
