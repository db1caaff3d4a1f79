/** Where the pending-write log is in the browser's plain storage, which is written before the next line of the program runs. */
const PLACE = 'zero-lash-jotting:';

/** How the names in the log begin: of what is to be sent, whose key follows, and of tries, whose place does. */
export const WRITE = 'write:';
export const EARLIER_READING = 'reading:';
export const TRIES = 'tries:';

const inHand = new Map<string, unknown>(readBefore());

/**
 * Logs something at once, so that even a reload in the very next instant finds it. The device's store, which takes
 * a moment, is where it belongs; {@link removeLogged} takes it out when it is there.
 */
export function putLogged(name: string, value: unknown): void {
  inHand.set(name, value);
  try {
    localStorage.setItem(PLACE + name, JSON.stringify(value));
  } catch {
    // full or forbidden: it is still in hand while the page is open
  }
}

/** Takes something out of the log, unless something newer was logged under its name since. */
export function removeLogged(name: string, value: unknown): void {
  if (inHand.get(name) !== value) return;
  inHand.delete(name);
  try {
    localStorage.removeItem(PLACE + name);
  } catch {
    // a storage that is forbidden had nothing to take out
  }
}

/** What is logged under names that begin so, and not taken out, by the rest of the name. */
export function readLogged<Value>(beginning: string): ReadonlyMap<string, Value> {
  return new Map(
    [...inHand]
      .filter(([name]) => name.startsWith(beginning))
      .map(([name, value]) => [name.slice(beginning.length), value as Value]),
  );
}

function readBefore(): [string, unknown][] {
  try {
    return Object.entries({ ...localStorage })
      .filter(([key]) => key.startsWith(PLACE))
      .map(([key, text]) => [key.slice(PLACE.length), JSON.parse(String(text))]);
  } catch {
    return [];
  }
}
