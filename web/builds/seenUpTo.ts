import { store } from '../app/store.ts';
import { sequenceOf } from './updateSequence.ts';
import { buildsApi } from './endpoints.ts';

/**
 * Up to which write of a build this page shows everything: what a signature names. Before a stream has begun, as far as the room
 * that was read first.
 */
export function seenUpTo(buildId: string): number {
  const told = sequenceOf(buildId).upTo;
  if (told !== null) return told;
  const rooms = ['rounds', 'ticks', 'ledger', 'wear'] as const;
  const read = rooms.map(
    (room) => buildsApi.endpoints.buildRoom.select({ buildId, room })(store.getState()).data?.seq ?? 0,
  );
  return Math.min(...read);
}
