import { standingLines } from '@zero-lash/core/builds';
import { ledgerKey, partsListOf, partsListRow } from '@zero-lash/core/parts';
import type { PartFate } from '@zero-lash/core/wear';
import Papa from 'papaparse';
import type { BuildView } from '../builds/buildView.ts';

/** Writes what a build replaces and wants as CSV: part, place, count, state, why. */
export function writePartsCsv(
  { sheet, ledger }: Pick<BuildView, 'sheet' | 'ledger'>,
  fates: readonly PartFate[],
): string {
  return Papa.unparse({
    fields: ['part', 'place', 'count', 'state', 'why'],
    data: partsListOf(sheet, fates, standingLines(ledger, ledgerKey)).map((line) => [...partsListRow(line)]),
  });
}
