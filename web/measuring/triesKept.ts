import type { Try } from '@zero-lash/core/measuring';
import { jotted, strike, TRIES } from '../app/jotter.ts';
import { deviceStore } from '../app/deviceStore.ts';
import type { TriesByPlace } from './tries.ts';

/** Puts jotted tries into the device's store; none takes them out of it. */
export async function keepTries(place: string, tries: readonly Try[]): Promise<void> {
  if (tries.length === 0) await deviceStore.tries.delete(place);
  else await deviceStore.tries.put({ place, tries });
  strike(TRIES + place, tries);
}

/** The tries this device kept from before, also those that only got as far as a jotting. */
export async function readTries(): Promise<TriesByPlace> {
  const late = jotted<readonly Try[]>(TRIES);
  await Promise.allSettled([...late].map(([place, tries]) => keepTries(place, tries)));
  const kept = await deviceStore.tries.toArray().catch(() => []);
  const all = {
    ...Object.fromEntries(kept.map(({ place, tries }) => [place, tries])),
    ...Object.fromEntries(late),
  };
  return Object.fromEntries(Object.entries(all).filter(([, tries]) => tries.length > 0));
}
