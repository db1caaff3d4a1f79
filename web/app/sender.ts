import type { Health } from '@zero-lash/contract/health';
import type { ProblemBody } from '@zero-lash/contract/problems';
import { liveQuery } from 'dexie';
import { v4 as makeKey } from 'uuid';
import { sentHere } from './api.ts';
import { deviceStore } from './deviceStore.ts';
import type { OutboxItem } from './outboxItem.ts';
import { upgradeItem, type EarlierItem } from './earlierItems.ts';
import { EARLIER_READING, putLogged, readLogged, removeLogged, WRITE } from './pendingLog.ts';
import { itemGone, outboxRead, serverReached } from './outbox.ts';
import type { store as applicationStore } from './store.ts';

type Store = typeof applicationStore;
/** Where what waits is shown. */
interface Shows {
  readonly dispatch: (action: ReturnType<typeof outboxRead>) => unknown;
}
type Outcome = 'sent' | 'refused' | 'later';

/** What the sender has to be told: it knows no room of the application. */
export interface Sending {
  /** whose writes may be sent now; undefined where nobody is signed in */
  readonly sender: () => string | undefined;
  /**
   * puts what the server answered where the waiting row stood, at once: what is shown of the two is then drawn again once. It
   * is done when the answer is kept on the device too.
   */
  readonly onWritten: (answer: unknown, item: OutboxItem) => Promise<void>;
}

const FIRST_WAIT_MS = 500;
const LONGEST_WAIT_MS = 8000;
/** How long a step waits for what was done to be sent before it says so, and how often it looks. */
const PATIENCE_MS = 6000;
const LOOK_MS = 40;
/** Refusals that say nothing of what was sent itself: signed out, too slow, too many at once. */
const NOT_OF_THE_WRITE = new Set([401, 408, 429]);
/** A server, or what stands before it, that says itself that it cannot work just now. */
const NOT_JUST_NOW = new Set([502, 503, 504]);
/** How long one try to send may take. */
const ANSWER_WITHIN_MS = 20_000;
/** What the server broke over this often in the same way is set aside, as long as it can write at all: the others go on. */
const BREAKS = 3;

/** The code of what broke on the server, and of an answer that was none of ours. */
const BROKEN = 'broken';
/** The code of a write whose time cannot be, and the kind of one that says it was thrown away. */
const ASKED_WHEN = 'taken_when';
export const QUESTION_LEFT = 'question-left';
/** Which release of the program this is: its files have names of their own. */
const RELEASE = import.meta.url;

/** How often the server broke over something in one way, by its key. */
const breaks = new Map<string, { readonly how: string; readonly times: number }>();

let asked = false;
let endPause: (() => void) | null = null;

/** Has the sender look at once for something to send. */
export function wake(): void {
  asked = true;
  endPause?.();
}

/** Logs something that was done at the bench, before it is even shown: no reload comes so early that it is lost. */
export function logItem(item: OutboxItem): void {
  putLogged(WRITE + item.key, item);
}

/** Puts what was logged into the device's store, then has it sent; nothing is left to do where it was sent already. */
export async function keepOnDevice({ key }: Pick<OutboxItem, 'key'>): Promise<void> {
  const item = readLogged<OutboxItem>(WRITE).get(key);
  if (!item) return;
  try {
    await deviceStore.outbox.put(item);
    removeLogged(WRITE + key, item);
  } catch {
    // a device whose store refuses (full, or private browsing) sends it from the log
  }
  wake();
}

/** Takes what something newer takes the place of out of wherever it waits; what is being sent just now is written first. */
export async function dropFromDevice(keys: readonly string[]): Promise<void> {
  for (const key of keys) removeLogged(WRITE + key, readLogged(WRITE).get(key));
  await deviceStore.outbox.bulkDelete([...keys]).catch(() => undefined);
}

/** What the server answered and the device is still putting away: it is neither shown as waiting nor sent again. */
const answered = new Set<string>();

/** Everything waiting or refused, in the order it was taken. */
async function readOutbox(): Promise<OutboxItem[]> {
  const kept = await deviceStore.outbox
    .orderBy('order')
    .toArray()
    .catch((): OutboxItem[] => []);
  const rest = [...readLogged<OutboxItem>(WRITE).values()].filter(
    ({ key }) => !kept.some((item) => item.key === key),
  );
  return [...kept, ...rest].filter(({ key }) => !answered.has(key)).sort((a, b) => a.order - b.order);
}

/** Takes an item out of wherever it waits. */
async function letGo({ dispatch }: Shows, item: OutboxItem): Promise<void> {
  removeLogged(WRITE + item.key, readLogged(WRITE).get(item.key));
  await deviceStore.outbox.delete(item.key).catch(() => undefined);
  dispatch(outboxRead(await readOutbox()));
}

/** Shows an answer in the item's place, and takes the item out of wherever it waits once the answer is kept. */
async function putAway(store: Store, item: OutboxItem, kept: Promise<void>): Promise<void> {
  answered.add(item.key);
  store.dispatch(itemGone(item.key));
  try {
    await kept;
    await letGo(store, item);
    answered.delete(item.key);
  } catch (error) {
    // it could not be put away: it waits again, and is answered as before
    answered.delete(item.key);
    store.dispatch(outboxRead(await readOutbox()));
    throw error;
  }
}

/**
 * Waits until everything of one kind is sent (what was done in a build, what a person did), as a step does that the server
 * takes only when it has it all.
 *
 * @returns false where it could not be sent in good time
 * @example await whenSent(store, ({ buildId }) => buildId === id)
 */
export async function whenSent(
  store: Pick<Store, 'getState'>,
  of: (item: OutboxItem) => boolean,
): Promise<boolean> {
  const until = Date.now() + PATIENCE_MS;
  const left = () =>
    answered.size > 0 || store.getState().outbox.items.some((item) => item.refused === null && of(item));
  while (left()) {
    if (Date.now() > until) return false;
    await new Promise((resolve) => setTimeout(resolve, LOOK_MS));
  }
  return true;
}

/** What a person says of what was refused: send it again as it is, or as done now, or throw it away. */
export type RefusedAnswer = 'again' | 'now' | 'away';

/** Does with what was refused as a person says. */
export async function answerRefused(shows: Shows, item: OutboxItem, answer: RefusedAnswer): Promise<void> {
  if (answer === 'away') {
    // the server knows that this device was asked: it is told, whenever it is reached
    if (item.refused?.code === ASKED_WHEN) await tellLeft(item);
    await letGo(shows, item);
  } else await writeDown(item, null, answer === 'now' ? new Date().toISOString() : item.takenAt);
  wake();
}

/** Has the server told that what this device was asked about was thrown away. */
async function tellLeft({ key, personId, by }: OutboxItem): Promise<void> {
  const told: OutboxItem = {
    ...{ key: makeKey(), order: Date.now(), personId, by, buildId: '', kind: QUESTION_LEFT, within: null },
    ...{ about: 'What was thrown away', said: 'It was thrown away', method: 'POST' },
    ...{ path: `time-questions/${key}/left`, takenAt: new Date().toISOString(), body: {}, refused: null },
  };
  logItem(told);
  await keepOnDevice(told);
}

/** Writes down, wherever an item waits, whether it is refused and why. */
async function writeDown(
  item: OutboxItem,
  refused: ProblemBody | null,
  takenAt: OutboxItem['takenAt'] = item.takenAt,
): Promise<void> {
  const change = { refused, takenAt, refusedBy: refused ? RELEASE : null };
  if (readLogged(WRITE).has(item.key)) putLogged(WRITE + item.key, { ...item, ...change });
  await deviceStore.outbox.update(item.key, change).catch(() => undefined);
}

/** Sends what this device holds, in the order it was taken, for as long as the page is open; one tab at a time. */
export function startSending(store: Store, sending: Sending): void {
  // what another tab did comes by here too: whichever tab sends, looks at once
  liveQuery(readOutbox).subscribe((items) => {
    store.dispatch(outboxRead(items));
    wake();
  });
  for (const [key, item] of readLogged<EarlierItem>(EARLIER_READING)) {
    logItem(upgradeItem(item));
    removeLogged(EARLIER_READING + key, item);
  }
  for (const item of readLogged<OutboxItem>(WRITE).values()) void keepOnDevice(item);
  void sendBrokenAgain();
  window.addEventListener('online', wake);
  void oneTabAtATime(() => sendForEver(store, sending));
}

/** What an earlier release of the program broke over is sent again, once: the fault may be mended. */
export async function sendBrokenAgain(): Promise<void> {
  for (const item of await readOutbox())
    if (item.refused?.code === BROKEN && item.refusedBy !== RELEASE) await writeDown(item, null);
  wake();
}

async function oneTabAtATime(work: () => Promise<void>): Promise<void> {
  if ('locks' in navigator) await navigator.locks.request('zero-lash-sending', work);
  else await work();
}

async function sendForEver(store: Store, sending: Sending): Promise<void> {
  let pause = FIRST_WAIT_MS;
  for (;;) {
    const next = await nextToSend(sending);
    // whatever goes wrong with one try, there is another
    const outcome = next ? await inFlight(next, send(store, sending, next)) : 'later';
    if (next && outcome !== 'later') {
      pause = FIRST_WAIT_MS;
      continue;
    }
    await waited(pause);
    pause = next ? Math.min(pause * 2, LONGEST_WAIT_MS) : LONGEST_WAIT_MS;
  }
}

/** What is being sent just now, until it is answered or given up. */
let flight: { readonly key: string; readonly over: Promise<Outcome> } | null = null;

function inFlight({ key }: OutboxItem, sent: Promise<Outcome>): Promise<Outcome> {
  const over = sent.catch((): Outcome => 'later');
  flight = { key, over };
  return over;
}

/**
 * Waits for the answer to what is being sent just now, where it is one of those named: news of it comes in a moment sooner by
 * another way, and what is shown would be drawn again for each.
 *
 * @example await whenAnswered(news.changes.map(({ row }) => row.id));
 */
export async function whenAnswered(keys: readonly unknown[]): Promise<void> {
  if (flight && keys.includes(flight.key)) await flight.over;
}

/** The oldest that waits, of whoever is signed in: nobody's work is sent under another's name. */
async function nextToSend({ sender }: Sending): Promise<OutboxItem | undefined> {
  const waiting = await readOutbox();
  return waiting.find(({ personId, refused }) => personId === sender() && refused === null);
}

async function send(store: Store, { onWritten }: Sending, item: OutboxItem): Promise<Outcome> {
  let answer: Response;
  sentHere(item.key);
  try {
    answer = await fetch(`/api/${item.path}`, {
      method: item.method,
      headers: {
        'content-type': 'application/json',
        'idempotency-key': item.key,
        // so that a clock that goes wrong puts nothing before or after its time
        'device-clock': new Date().toISOString(),
      },
      body: JSON.stringify({ ...(item.body as object), takenAt: item.takenAt }),
      signal: AbortSignal.timeout(ANSWER_WITHIN_MS),
    });
  } catch {
    store.dispatch(serverReached(false));
    return 'later';
  }
  store.dispatch(serverReached(true));
  if (answer.ok) {
    breaks.delete(item.key);
    const said: unknown = await answer.json();
    await putAway(store, item, onWritten(said, item));
    return 'sent';
  }
  if (NOT_JUST_NOW.has(answer.status) || NOT_OF_THE_WRITE.has(answer.status)) return 'later';
  const problem = await problemIn(answer);
  if (answer.status >= 500 && !(brokeTooOften(item, problem) && (await canWrite()))) return 'later';
  breaks.delete(item.key);
  await writeDown(item, problem);
  store.dispatch(outboxRead(await readOutbox()));
  return 'refused';
}

/** Whether the server can write just now, by its own last try: while it cannot, nothing is at fault but that. */
async function canWrite(): Promise<boolean> {
  try {
    const answer = await fetch('/api/health', { signal: AbortSignal.timeout(ANSWER_WITHIN_MS) });
    return ((await answer.json()) as Health).writes === 'fine';
  } catch {
    return false;
  }
}

/** What an answer says went wrong, also where it is no answer of ours. */
async function problemIn(answer: Response): Promise<ProblemBody> {
  const said = (await answer.json().catch(() => null)) as ProblemBody | null;
  if (said && typeof said.code === 'string' && typeof said.detail === 'string') return said;
  const title = `The server answered ${answer.status}, and said no more.`;
  return { type: 'about:blank', title, status: answer.status, code: BROKEN, detail: title };
}

/** Counts what breaks in the same way over one item; what breaks differently is counted again. */
function brokeTooOften({ key }: OutboxItem, { status, code }: ProblemBody): boolean {
  const how = `${status} ${code}`;
  const before = breaks.get(key);
  const times = before?.how === how ? before.times + 1 : 1;
  breaks.set(key, { how, times });
  return times >= BREAKS;
}

/** Pauses, unless somebody asked for a look since the last one: what came between must not wait out the pause. */
function waited(ms: number): Promise<void> {
  return new Promise((resolve) => {
    const timer = setTimeout(done, asked ? 0 : ms);
    function done() {
      clearTimeout(timer);
      asked = false;
      endPause = null;
      resolve();
    }
    endPause = done;
  });
}
