/** Paths whose last answer is kept on the device, so that the pages seen before open without a server. */
const KEPT =
  /^(?:session|today|tools|owners|usage\/questions|engines\/[\w-]+(?:\/(?:wear|trend|pieces|ran))?|sheets|sheets\/[\w-]+|sheet-revisions\/[\w-]+|builds\/[\w-]+(?:\/[\w-]+)?|rechecks\/filters)$/;
/** Lists too, as they open; what somebody looked for by a word is another list each time, and is not kept. */
const KEPT_LIST = /^(?:engines|rechecks)\?(?!.*\b(?:search|offset)=)/;
const isKept = (url: string) => KEPT.test(url) || KEPT_LIST.test(url);
/** How long keeping waits at the start: the first page comes first. */
const SETTLED_MS = 1500;

const settled = new Promise((resolve) => setTimeout(resolve, SETTLED_MS));
const openStore = async () => (await import('./deviceStore.ts')).deviceStore;

/** How often somebody came to this device or left it: what was asked for before is of nobody's here any more. */
let hands = 0;
/** Whose answers are asked for now; it goes with an answer to where it is kept. */
export const askedBy = (): number => hands;
/** Somebody signed in: what was asked for before them was not asked by them. */
export const cameIn = (): void => void (hands += 1);

/**
 * Keeps an answer, where it is one that pages open with. A device that refuses to keep costs the convenience only.
 *
 * @param by who asked, as `askedBy` said then: what comes in after they left is not kept
 */
export async function cacheAnswer(url: string, value: unknown, by = askedBy()): Promise<void> {
  if (!isKept(url)) return;
  await settled
    .then(openStore)
    .then((store) => (by === hands ? store.answers.put({ url, value }) : undefined))
    .catch(() => undefined);
}

/** The last answer kept for a path; undefined where there is none. */
export async function cachedAnswer(url: string): Promise<unknown> {
  if (!isKept(url)) return undefined;
  try {
    return (await (await openStore()).answers.get(url))?.value;
  } catch {
    return undefined;
  }
}

/** Forgets what was kept for whoever signs out; what is not sent yet stays. */
export async function clearAnswers(): Promise<void> {
  hands += 1;
  try {
    await (await openStore()).answers.clear();
  } catch {
    // nothing was kept, then
  }
}
