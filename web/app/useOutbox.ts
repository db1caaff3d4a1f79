import { useStore } from 'react-redux';
import { v4 as makeKey } from 'uuid';
import { useSession } from './useSession.ts';
import { afterPaint } from './afterPaint.ts';
import type { OutboxItem } from './outboxItem.ts';
import { itemPut } from './outbox.ts';
import { dropFromDevice, logItem, keepOnDevice } from './sender.ts';
import { useAppDispatch, type RootState } from './store.ts';
import { useStable } from './useStable.ts';

/** What is sent, and what it is called while it waits. */
export type Sent = Pick<
  OutboxItem,
  'kind' | 'within' | 'about' | 'said' | 'method' | 'path' | 'body' | 'buildId'
> & {
  /** when it was done, where that was not now: written down on paper, say */
  readonly takenAt?: string | undefined;
};

let lastOrder = 0;

/**
 * Puts something that a person did into the outbox: shown at once, on the device before it is sent, sent when the server is
 * reached.
 *
 * @returns `insteadOf` names what waits and is not sent any more, because this takes its place
 * @example put({ ...sent, buildId }, (item) => item.kind === 'turning')
 */
export function useOutbox(): (sent: Sent, insteadOf?: (item: OutboxItem) => boolean) => void {
  const dispatch = useAppDispatch();
  const store = useStore<RootState>();
  const session = useSession();
  return useStable((sent: Sent, insteadOf?: (item: OutboxItem) => boolean) => {
    if (!session) return;
    lastOrder = Math.max(lastOrder + 1, Date.now());
    const item: OutboxItem = {
      ...sent,
      takenAt: sent.takenAt ?? new Date().toISOString(),
      key: makeKey(),
      order: lastOrder,
      personId: session.person.id,
      by: session.person.name,
      refused: null,
    };
    const gone = insteadOf
      ? store
          .getState()
          .outbox.items.filter((other) => other.personId === item.personId && insteadOf(other))
          .map(({ key }) => key)
      : [];
    logItem(item);
    dispatch(itemPut({ item, insteadOf: gone }));
    afterPaint(() => {
      if (gone.length > 0) void dropFromDevice(gone);
      void keepOnDevice(item);
    });
  });
}
