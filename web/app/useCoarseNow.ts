import { useSyncExternalStore } from 'react';

const EVERY_MS = 15_000;
let now = Date.now();
const listeners = new Set<() => void>();
let timer: ReturnType<typeof setInterval> | undefined;

function tick(): void {
  now = Date.now();
  for (const listener of listeners) listener();
}

function listen(listener: () => void): () => void {
  listeners.add(listener);
  timer ??= setInterval(tick, EVERY_MS);
  if (Date.now() - now > EVERY_MS) queueMicrotask(tick);
  return () => {
    listeners.delete(listener);
    if (listeners.size > 0) return;
    clearInterval(timer);
    timer = undefined;
  };
}

/** The time, to a quarter of a minute, in ms since the epoch: for what counts minutes. */
export const useCoarseNow = (): number => useSyncExternalStore(listen, () => now);
