import type { ProblemBody } from '@zero-lash/contract/problems';
import type { OutboxItem } from './outboxItem.ts';

/** What an older program put into the outbox: readings only. */
export interface EarlierItem {
  readonly key: string;
  readonly order: number;
  readonly personId: string;
  readonly by: string;
  readonly buildId: string;
  readonly roundId: string;
  readonly reading: { readonly point: string; readonly takenAt: string; readonly asTyped: string };
  readonly refused: ProblemBody | null;
}

/** Brings an item that an older program left on this device to what it is now: nothing measured is lost by an update. */
export function upgradeItem(item: EarlierItem | OutboxItem): OutboxItem {
  if (!('reading' in item)) return item;
  const { roundId, reading, ...rest } = item;
  return {
    ...rest,
    kind: 'reading',
    within: roundId,
    about: reading.point,
    said: reading.asTyped,
    method: 'POST',
    path: `rounds/${roundId}/readings`,
    takenAt: reading.takenAt,
    body: reading,
  };
}
