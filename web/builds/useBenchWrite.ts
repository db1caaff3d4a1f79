import { useOutbox } from '../app/useOutbox.ts';
import { useStable } from '../app/useStable.ts';
import { writeOf, type BenchWrites, type WriteKind } from './rooms.ts';

/** Something written at the bench, by its kind. */
export type BenchWrite = { [Kind in WriteKind]: { readonly kind: Kind } & BenchWrites[Kind] }[WriteKind];

/** Writes something at the bench: shown at once, on the device before it is sent, sent when the server is reached. */
export function useBenchWrite(buildId: string): (write: BenchWrite) => void {
  const put = useOutbox();
  return useStable(({ kind, ...write }: BenchWrite) => {
    const { send, replaces = false } = writeOf(kind)!;
    const sent = { ...send(buildId, write as never), kind, buildId };
    if (!replaces) put(sent);
    else put(sent, (item) => item.kind === kind && item.within === sent.within);
  });
}
