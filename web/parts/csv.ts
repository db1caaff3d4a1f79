import { standingLines } from '@zero-lash/core/builds';
import { ledgerKey, ledgerOf, ORDER_WORDS, partsList, wantedParts } from '@zero-lash/core/parts';
import type { PartFate } from '@zero-lash/core/wear';
import Papa from 'papaparse';
import type { BuildView } from '../builds/buildView.ts';

/** Writes what a build replaces and wants as CSV: part, place, count, state, why. */
export function writePartsCsv(
  { sheet, ledger }: Pick<BuildView, 'sheet' | 'ledger'>,
  fates: readonly PartFate[],
): string {
  const counted = ledgerOf(wantedParts(sheet), standingLines(ledger, ledgerKey));
  return Papa.unparse({
    fields: ['part', 'place', 'count', 'state', 'why'],
    data: partsList(fates, counted).map(({ name, place, count, state, reason }) => [
      ...[name, place, count, ORDER_WORDS[state], reason],
    ]),
  });
}
