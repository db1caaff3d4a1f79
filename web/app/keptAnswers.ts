/** Paths whose last answer is kept on the device, so that the pages seen before open without a server. */
const KEPT = /^(?:session|today|tools|engines\/[\w-]+|sheets|sheets\/[\w-]+|builds\/[\w-]+)$/;
/** How long keeping waits at the start: the first page comes first. */
const SETTLED_MS = 1500;

const settled = new Promise((resolve) => setTimeout(resolve, SETTLED_MS));
const openStore = async () => (await import('../measuring/deviceStore.ts')).deviceStore;

/** Keeps an answer, where it is one that pages open with. A device that refuses to keep costs the convenience only. */
export function keepAnswer(url: string, value: unknown): void {
  if (!KEPT.test(url)) return;
  void settled
    .then(openStore)
    .then((store) => store.answers.put({ url, value }))
    .catch(() => undefined);
}

/** The last answer kept for a path; undefined where there is none. */
export async function keptAnswer(url: string): Promise<unknown> {
  if (!KEPT.test(url)) return undefined;
  try {
    return (await (await openStore()).answers.get(url))?.value;
  } catch {
    return undefined;
  }
}

/** Forgets what was kept for whoever signs out; readings not sent yet stay. */
export async function forgetAnswers(): Promise<void> {
  try {
    await (await openStore()).answers.clear();
  } catch {
    // nothing was kept, then
  }
}
