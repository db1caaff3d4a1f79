/** Where jottings stand in the browser's plain storage, which is written before the next line of the program runs. */
const PLACE = 'zero-lash-jotting:';

/** How the names of jottings begin: of what is to be sent, whose key follows, and of tries, whose place does. */
export const WRITE = 'write:';
export const EARLIER_READING = 'reading:';
export const TRIES = 'tries:';

const inHand = new Map<string, unknown>(readBefore());

/**
 * Jots something down at once, so that even a reload in the very next instant finds it. The device's store, which takes
 * a moment, is where it belongs; {@link strike} it out when it is there.
 */
export function jot(name: string, value: unknown): void {
  inHand.set(name, value);
  try {
    localStorage.setItem(PLACE + name, JSON.stringify(value));
  } catch {
    // full or forbidden: it is still in hand while the page is open
  }
}

/** Strikes a jotting out, unless something newer was jotted under its name since. */
export function strike(name: string, value: unknown): void {
  if (inHand.get(name) !== value) return;
  inHand.delete(name);
  try {
    localStorage.removeItem(PLACE + name);
  } catch {
    // a storage that is forbidden had nothing to strike out
  }
}

/** What is jotted under names that begin so, and not struck out, by the rest of the name. */
export function jotted<Value>(beginning: string): ReadonlyMap<string, Value> {
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
