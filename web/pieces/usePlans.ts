import type { ShimPlanInput } from '@zero-lash/core/setting';
import { useEffect, useRef, useState } from 'react';
import { useShared } from '../app/useShared.ts';
import { planAll, type Plans } from './plans.ts';

interface Told {
  readonly id: number;
  readonly plans?: Plans;
  readonly failed?: string;
}

/** What a worker planned, and whether it answers what is asked now. */
export interface Planned {
  readonly plans: Plans | null;
  readonly current: boolean;
  readonly failed: string | null;
}

/** Plans in a worker; where the browser has none, here. */
export function usePlans(asked: readonly ShimPlanInput[]): Planned {
  // the same question is not asked again
  const questions = useShared(asked);
  const worker = useRef<Worker | null>(null);
  const last = useRef(0);
  const [told, setTold] = useState<Told>({ id: 0 });
  const [wanted, setWanted] = useState(0);
  useEffect(() => {
    if (typeof Worker === 'undefined') return undefined;
    const made = new Worker(new URL('./planWorker.ts', import.meta.url), { type: 'module' });
    made.onmessage = ({ data }: MessageEvent<Told>) =>
      setTold((before) => (data.id < before.id ? before : data));
    made.onerror = () => setTold((before) => ({ id: before.id + 1, failed: 'The planner broke off.' }));
    worker.current = made;
    return () => {
      made.terminate();
      worker.current = null;
    };
  }, []);
  useEffect(() => {
    last.current += 1;
    const id = last.current;
    setWanted(id);
    if (worker.current) worker.current.postMessage({ id, questions });
    else setTold({ id, plans: planAll(questions) });
  }, [questions]);
  return { plans: told.plans ?? null, current: told.id === wanted, failed: told.failed ?? null };
}
