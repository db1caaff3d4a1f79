import { counted } from '@zero-lash/core/length';
import type { NewLedger, NewPatternParts } from '@zero-lash/contract/parts';
import { entryWrite, toBuild, withRow, type RowsOfRoom, type WriteOfRoom } from '../builds/rooms.ts';

declare module '../builds/rooms.ts' {
  interface BenchWrites {
    ledger: EntryWrite<NewLedger>;
    'pattern-parts': { readonly body: NewPatternParts };
  }
}

export const ledgerRows: RowsOfRoom<'ledger'> = { ledger: withRow };

export const ledgerWrite = entryWrite<'ledger', 'ledger'>('ledger');

export const patternPartsRows: RowsOfRoom<'pattern-parts'> = { 'pattern-parts': withRow };

export const patternPartsWrite: WriteOfRoom<'pattern-parts', 'pattern-parts'> = {
  brings: 'pattern-parts',
  send: (buildId, { body }) => ({
    ...toBuild(buildId, 'pattern-parts'),
    ...{ about: 'what is there on this pattern', said: counted(body.lines.length, 'line'), body },
  }),
  pending: (item, build) => ({
    ...{ id: item.key, sheetId: build.sheet.sheetId, by: item.by, at: item.takenAt },
    lines: (item.body as NewPatternParts).lines,
  }),
};
