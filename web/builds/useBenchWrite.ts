import { useStore } from 'react-redux';
import { v4 as makeKey } from 'uuid';
import { afterPaint } from '../app/afterPaint.ts';
import type { OutboxItem } from '../app/deviceStore.ts';
import { itemPut } from '../app/outbox.ts';
import { dropFromDevice, jotItem, keepOnDevice } from '../app/sender.ts';
import { useAppDispatch, type RootState } from '../app/store.ts';
import { useStable } from '../app/useStable.ts';
import { useSession } from '../people/useSession.ts';
import { sentAs, type BenchWrite } from './benchWrites.ts';

let lastOrder = 0;

/** Of these only the last that was said is sent: what it takes the place of was never true for anybody else. */
const REPLACED: ReadonlySet<BenchWrite['kind']> = new Set(['turning']);

/** Writes something at the bench: shown at once, on the device before it is sent, sent when the server is reached. */
export function useBenchWrite(buildId: string): (write: BenchWrite) => void {
  const dispatch = useAppDispatch();
  const store = useStore<RootState>();
  const session = useSession();
  return useStable((write: BenchWrite) => {
    if (!session) return;
    lastOrder = Math.max(lastOrder + 1, Date.now());
    const item: OutboxItem = {
      ...sentAs(buildId, write),
      key: makeKey(),
      order: lastOrder,
      personId: session.person.id,
      by: session.person.name,
      buildId,
      takenAt: new Date().toISOString(),
      refused: null,
    };
    const insteadOf = REPLACED.has(write.kind)
      ? store
          .getState()
          .outbox.items.filter(
            ({ kind, within, personId }) =>
              kind === item.kind && within === item.within && personId === item.personId,
          )
          .map(({ key }) => key)
      : [];
    jotItem(item);
    dispatch(itemPut({ item, insteadOf }));
    afterPaint(() => {
      if (insteadOf.length > 0) void dropFromDevice(insteadOf);
      void keepOnDevice(item);
    });
  });
}
