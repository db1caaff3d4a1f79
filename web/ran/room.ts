import type { NewRan } from '@zero-lash/contract/ran';
import { entryWrite, withRow, type RowsOfRoom } from '../builds/rooms.ts';

declare module '../builds/rooms.ts' {
  interface BenchWrites {
    ran: EntryWrite<NewRan>;
  }
}

export const ranRows: RowsOfRoom<'ran'> = { ran: withRow };

export const ranWrite = entryWrite<'ran', 'ran'>('ran');
