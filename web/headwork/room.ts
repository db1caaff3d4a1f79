import type { NewHeadWork } from '@zero-lash/contract/headwork';
import { entryWrite, withRow, type RowsOfRoom } from '../builds/rooms.ts';

declare module '../builds/rooms.ts' {
  interface BenchWrites {
    headwork: EntryWrite<NewHeadWork>;
  }
}

export const headWorkRows: RowsOfRoom<'headwork'> = { headwork: withRow };

export const headWorkWrite = entryWrite<'headwork', 'headwork'>('headwork');
