import { useSyncExternalStore } from 'react';
import type { Preview } from './usePreview.ts';

/** What a tap just said of a point, drawn before the tap is worked up. */
interface Said {
  readonly place: string;
  readonly seen: Preview;
}

let said: Said | null = null;
const listeners = new Set<() => void>();

/** Has what a tap comes to drawn at its point at once; null where what it said is worked up, and is shown from there. */
export function showPreview(next: Said | null): void {
  if (next === said) return;
  said = next;
  for (const listener of listeners) listener();
}

function listen(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** What was just said at a place; null where nothing was. */
export function useTapPreview(place: string): Preview | null {
  return useSyncExternalStore(listen, () => (said?.place === place ? said.seen : null));
}
