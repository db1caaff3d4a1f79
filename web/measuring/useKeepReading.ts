import type { Round } from '@zero-lash/contract/measuring';
import type { Reading } from '@zero-lash/core/measuring';
import { v4 as makeKey } from 'uuid';
import { afterPaint } from '../app/afterPaint.ts';
import { useAppDispatch } from '../app/store.ts';
import { useSession } from '../people/useSession.ts';
import type { OutboxItem } from './deviceStore.ts';
import { readingTaken } from './outbox.ts';
import { jotReading, keepOnDevice } from './sender.ts';

/** A reading as the bench has just taken it. */
export interface TakenReading {
  readonly point: string;
  readonly reading: Reading;
  readonly asTyped: string;
  readonly doubtKept?: boolean;
  readonly crankAngle: number | null;
  readonly instrumentId: string | null;
  readonly blind: boolean;
  readonly reason?: string;
}

let lastOrder = 0;

/** Keeps a reading: shown at once, on the device before it is sent, sent when the server is reached. */
export function useKeepReading(buildId: string, round: Round) {
  const dispatch = useAppDispatch();
  const session = useSession();
  return (taken: TakenReading) => {
    if (!session) return;
    lastOrder = Math.max(lastOrder + 1, Date.now());
    const item: OutboxItem = {
      key: makeKey(),
      order: lastOrder,
      personId: session.person.id,
      by: session.person.name,
      buildId,
      roundId: round.id,
      reading: {
        ...taken,
        reading: structuredClone(taken.reading) as never,
        takenAt: new Date().toISOString(),
        over: round.readings.find(({ point }) => point === taken.point)?.id ?? null,
      },
      refused: null,
    };
    jotReading(item);
    dispatch(readingTaken(item));
    afterPaint(() => void keepOnDevice(item));
  };
}
