import type { Try } from '@zero-lash/core/measuring';
import { readLogged, removeLogged, TRIES } from '../app/pendingLog.ts';
import { deviceStore } from '../app/deviceStore.ts';

/** The tries of points that are not decided yet, by `round:point`. */
export type TriesByPlace = Readonly<Record<string, readonly Try[]>>;

/** Puts logged tries into the device's store; none takes them out of it. */
export async function keepTries(place: string, tries: readonly Try[]): Promise<void> {
  if (tries.length === 0) await deviceStore.tries.delete(place);
  else await deviceStore.tries.put({ place, tries });
  removeLogged(TRIES + place, tries);
}

/** The tries this device kept from before, also those that only got as far as the pending-write log. */
export async function readTries(): Promise<TriesByPlace> {
  const late = readLogged<readonly Try[]>(TRIES);
  await Promise.allSettled([...late].map(([place, tries]) => keepTries(place, tries)));
  const kept = await deviceStore.tries.toArray().catch(() => []);
  const all = {
    ...Object.fromEntries(kept.map(({ place, tries }) => [place, tries])),
    ...Object.fromEntries(late),
  };
  return Object.fromEntries(Object.entries(all).filter(([, tries]) => tries.length > 0));
}
