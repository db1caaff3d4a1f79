import type { NewLedger } from '@zero-lash/contract/parts';
import { entryWrite, withRow, type RowsOfRoom } from '../builds/rooms.ts';

declare module '../builds/rooms.ts' {
  interface BenchWrites {
    ledger: EntryWrite<NewLedger>;
  }
}

export const ledgerRows: RowsOfRoom<'ledger'> = { ledger: withRow };

export const ledgerWrite = entryWrite<'ledger', 'ledger'>('ledger');
