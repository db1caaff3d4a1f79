import type { NewWear } from '@zero-lash/contract/wear';
import { entryWrite, withRow, type RowsOfRoom } from '../builds/rooms.ts';

declare module '../builds/rooms.ts' {
  interface BenchWrites {
    wear: EntryWrite<NewWear>;
  }
}

export const wearRows: RowsOfRoom<'wear'> = { wear: withRow };

export const wearWrite = entryWrite<'wear', 'wear'>('wear');
