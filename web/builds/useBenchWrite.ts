import { useOutbox } from '../app/useOutbox.ts';
import { useStable } from '../app/useStable.ts';
import { sentAs, type BenchWrite } from './benchWrites.ts';

/** Of these only the last that was said is sent: what it takes the place of was never true for anybody else. */
const REPLACED: ReadonlySet<BenchWrite['kind']> = new Set(['turning']);

/** Writes something at the bench: shown at once, on the device before it is sent, sent when the server is reached. */
export function useBenchWrite(buildId: string): (write: BenchWrite) => void {
  const put = useOutbox();
  return useStable((write: BenchWrite) => {
    const sent = sentAs(buildId, write);
    if (!REPLACED.has(write.kind)) put({ ...sent, buildId });
    else put({ ...sent, buildId }, ({ kind, within }) => kind === sent.kind && within === sent.within);
  });
}
