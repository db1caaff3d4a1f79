// Long because one sender runs for as long as its page does: everything that may befall it is tried on that one.
import 'fake-indexeddb/auto';
import type { Session } from '@zero-lash/contract/people';
import { afterEach, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest';
import type * as endpoints from '../builds/endpoints.ts';
import type { OutboxItem } from '../app/outboxItem.ts';

/** Waits until something holds, for as long as a machine that is busy takes. */
const until = <Value>(holds: () => Value | Promise<Value>) => vi.waitFor(holds, { timeout: 20_000 });

/** The browser's plain storage, as far as the device's notes need it. */
class PlainStorage {
  [key: string]: unknown;
  setItem(key: string, text: string): void {
    this[key] = text;
  }
  getItem(key: string): string | null {
    return (this[key] as string | undefined) ?? null;
  }
  removeItem(key: string): void {
    Reflect.deleteProperty(this, key);
  }
}

const problem = { code: 'round_closed', detail: 'This round is closed.' };

/** A request as far as the tests look. */
interface Came {
  readonly method: string;
  readonly body: string;
  readonly headers: Record<string, string>;
  readonly signal: AbortSignal;
}
type Answer = (request: Came) => Response | Promise<Response>;
const json =
  (status: number, body: unknown): ((request?: Came) => Response) =>
  () =>
    new Response(JSON.stringify(body), { status });
const NOTHING_NEW = { build: 'b', seq: 1, changes: [] };
const written: Answer = json(201, NOTHING_NEW);
const unreached: Answer = () => {
  throw new TypeError('Failed to fetch');
};

/** What came over the network, by key, in the order it came, and how the server answers now. */
let came: string[] = [];
let paths: string[] = [];
let answering: Answer = written;
let last: Came | undefined;

/** What keeping an answer on the device waits for, besides. */
let puttingAway = async (): Promise<void> => undefined;
vi.mock('../builds/endpoints.ts', async (original) => {
  const real = await original<typeof endpoints>();
  const applyUpdate: typeof endpoints.applyUpdate = async (...args) => {
    await real.applyUpdate(...args);
    await puttingAway();
  };
  return { ...real, applyUpdate };
});

const storage = new PlainStorage();
vi.stubGlobal('localStorage', storage);
vi.stubGlobal('window', new EventTarget());
vi.stubGlobal('navigator', {});
/** What the server says of itself: whether it can write. */
let writesNow = 'fine';
beforeEach(() => (writesNow = 'fine'));
vi.stubGlobal('fetch', async (url: string, request: Came) => {
  if (url === '/api/health') return Response.json({ writes: writesNow });
  paths.push(`${request.method} ${url}`);
  came.push(request.headers['idempotency-key']!);
  last = request;
  return answering(request);
});

const TOBIN = { id: 'tobin', name: 'Tobin Hask' };
let made = 0;
function item(change: Partial<OutboxItem> = {}): OutboxItem {
  made += 1;
  return {
    key: `key-${made}`,
    order: made,
    personId: TOBIN.id,
    by: TOBIN.name,
    buildId: 'b',
    kind: 'reading',
    within: 'r',
    about: '1I',
    said: '0.1',
    method: 'POST',
    path: 'rounds/r/readings',
    takenAt: '2031-01-01T00:00:00Z',
    body: { point: '1I', reading: { kind: 'drag', blade: 0.1 }, asTyped: '0.1' },
    refused: null,
    ...change,
  };
}

/** As the page does it, with all that a reload in between would leave. */
async function take(one: OutboxItem): Promise<OutboxItem> {
  const { logItem, keepOnDevice } = await import('../app/sender.ts');
  const { store } = await import('../app/store.ts');
  const { itemPut } = await import('../app/outbox.ts');
  logItem(one);
  store.dispatch(itemPut({ item: one, insteadOf: [] }));
  await keepOnDevice(one);
  return one;
}

const jottings = () => Object.keys(storage).filter((key) => key.startsWith('zero-lash-jotting:'));
const left = async () => {
  const { store } = await import('../app/store.ts');
  return store.getState().outbox.items.map(({ key }) => key);
};

/** A reading that was logged by an older program, whose page went before the device's store had it. */
const early = {
  ...{ key: 'before the reload', order: 0, personId: TOBIN.id, by: TOBIN.name, buildId: 'b', roundId: 'r' },
  reading: {
    point: '1I',
    reading: { kind: 'drag', blade: 0.1 },
    asTyped: '0.1',
    takenAt: '2031-01-01T00:00:00Z',
  },
  refused: null,
};

beforeAll(async () => {
  storage.setItem('zero-lash-jotting:reading:before the reload', JSON.stringify(early));
  storage.setItem('zero-lash-jotting:tries:r:2I', JSON.stringify([{ thickness: 0.1, result: 'goes' }]));
  const { store } = await import('../app/store.ts');
  const { sessionApi } = await import('../app/session.ts');
  const session = { person: TOBIN, shop: { unit: 'mm' } } as unknown as Session;
  await store.dispatch(sessionApi.util.upsertQueryData('session', undefined, session));
  (await import('../start/sending.ts')).sendBenchWork(store);
});
beforeEach(() => {
  answering = written;
  puttingAway = async () => undefined;
});
afterEach(async () => {
  const { answerRefused } = await import('../app/sender.ts');
  const { store } = await import('../app/store.ts');
  for (const one of store.getState().outbox.items) await answerRefused(store, one, 'away');
  await until(async () => expect(await left()).toEqual([]));
  came = [];
  paths = [];
});

describe('a page that comes back', () => {
  it('sends the reading that was only logged, and has the tries again', async () => {
    await until(() => expect(came).toEqual(['before the reload']));
    expect(paths).toEqual(['POST /api/rounds/r/readings']);
    expect(JSON.parse(last!.body)).toMatchObject({ point: '1I', takenAt: '2031-01-01T00:00:00Z' });
    await until(() => expect(jottings()).toEqual([]));
    const { store } = await import('../app/store.ts');
    const { deviceStore } = await import('../app/deviceStore.ts');
    const tries = [{ thickness: 0.1, result: 'goes' }];
    await until(() => expect(store.getState().tries).toEqual({ 'r:2I': tries }));
    expect(await deviceStore.tries.toArray()).toEqual([{ place: 'r:2I', tries }]);
  });
});

describe('readings on their way', () => {
  it('are sent in the order they were taken, and leave nothing behind', async () => {
    const [first, second] = [item(), item()];
    await Promise.all([take(second), take(first)]);
    const third = await take(item());
    await until(() => expect(came).toHaveLength(3));
    expect(came.at(-1)).toBe(third.key);
    await until(async () => expect(await left()).toEqual([]));
    expect(jottings()).toEqual([]);
  });

  it('wait while the server is not reached, say so, and go when it is', async () => {
    const { store } = await import('../app/store.ts');
    const { wake } = await import('../app/sender.ts');
    answering = unreached;
    const one = await take(item());
    await until(() => expect(store.getState().outbox.reached).toBe(false));
    expect(await left()).toEqual([one.key]);
    answering = written;
    wake();
    await until(async () => expect(await left()).toEqual([]));
    expect(new Set(came)).toEqual(new Set([one.key]));
    expect(store.getState().outbox.reached).toBe(true);
  });

  it.each([
    ['the server broke', json(500, { code: 'broken' })],
    ['nobody is signed in any more', json(401, { code: 'unauthenticated' })],
    ['too much was sent at once', json(429, { code: 'too_many' })],
    ['an answer that cannot be read', () => new Response('<html>', { status: 201 })],
  ])('are sent again under the same key after %s', async (_why, answer) => {
    const { wake } = await import('../app/sender.ts');
    answering = answer;
    const one = await take(item());
    await until(() => expect(came).toContain(one.key));
    expect(await left()).toEqual([one.key]);
    answering = written;
    const before = came.length;
    wake();
    await until(async () => expect(await left()).toEqual([]));
    expect(came.slice(before)).toEqual([one.key]);
  });

  it('over which the server breaks three times alike are set aside with why, and the rest goes on', async () => {
    const { store } = await import('../app/store.ts');
    const { wake } = await import('../app/sender.ts');
    const broken = json(500, { code: 'broken', detail: 'The log has it as 1a2b.' });
    const bad = await take(item());
    answering = ({ headers }) =>
      headers['idempotency-key'] === bad.key ? broken() : json(201, NOTHING_NEW)();
    const good = await take(item());
    await until(async () => {
      wake();
      expect(await left()).toEqual([bad.key]);
    });
    expect(came.filter((key) => key === bad.key)).toHaveLength(3);
    expect(came.at(-1)).toBe(good.key);
    expect(store.getState().outbox.items[0]!.refused).toMatchObject({ code: 'broken' });
  });

  it('are not set aside while the server cannot write at all, and go when it can', async () => {
    const { store } = await import('../app/store.ts');
    const { wake } = await import('../app/sender.ts');
    writesNow = 'full';
    answering = json(500, { code: 'broken', detail: 'The log has it as 1a2b.' });
    const one = await take(item());
    await until(() => {
      wake();
      expect(came.length).toBeGreaterThan(6);
    });
    expect(store.getState().outbox.items[0]!.refused).toBeNull();
    answering = written;
    await until(async () => {
      wake();
      expect(await left()).toEqual([]);
    });
    expect(came.at(-1)).toBe(one.key);
  });

  it('that an earlier release broke over are sent again once, and others that were refused are not', async () => {
    const { deviceStore } = await import('../app/deviceStore.ts');
    const { sendBrokenAgain } = await import('../app/sender.ts');
    answering = written;
    const was = { type: 'about:blank', title: 'x', status: 500, code: 'broken', detail: 'x' };
    const broken = item({ refused: was, refusedBy: 'an earlier release' });
    const old = item({ refused: was });
    const refused = item({
      refused: { ...was, status: 409, code: 'wrong_stage' },
      refusedBy: 'an earlier release',
    });
    await deviceStore.outbox.bulkPut([broken, old, refused]);
    await sendBrokenAgain();
    await until(() => expect(came.toSorted()).toEqual([broken.key, old.key].toSorted()));
    await until(async () => expect(await left()).toEqual([refused.key]));
  });

  it('wait as long as it takes for a server that says it cannot just now, or breaks in ever new ways', async () => {
    const { wake } = await import('../app/sender.ts');
    let times = 0;
    answering = () => {
      times += 1;
      if (times > 8) return json(201, NOTHING_NEW)();
      return json(times % 2 ? 503 : 500, { code: `trouble ${times}`, detail: 'It passes.' })();
    };
    const one = await take(item());
    await until(async () => {
      wake();
      expect(await left()).toEqual([]);
    });
    expect(came).toEqual(Array.from({ length: 9 }, () => one.key));
  });

  it('are not waited for for ever: a request that gets no answer is given up and sent again', async () => {
    const { store } = await import('../app/store.ts');
    const { wake } = await import('../app/sender.ts');
    const soon = vi.spyOn(AbortSignal, 'timeout').mockImplementation(() => {
      const giveUp = new AbortController();
      setTimeout(() => giveUp.abort(new DOMException('too long', 'TimeoutError')));
      return giveUp.signal;
    });
    answering = ({ signal }) =>
      new Promise((_resolve, reject) => {
        signal.addEventListener('abort', () => reject(signal.reason as Error));
      });
    const one = await take(item());
    await until(() => expect(store.getState().outbox.reached).toBe(false));
    expect(soon).toHaveBeenCalledWith(20_000);
    answering = written;
    wake();
    await until(async () => expect(await left()).toEqual([]));
    expect(new Set(came)).toEqual(new Set([one.key]));
    soon.mockRestore();
  });

  it('thrown away where the device was asked when it was, are told of to the server, which knows that it asked', async () => {
    const { store } = await import('../app/store.ts');
    const { answerRefused, wake } = await import('../app/sender.ts');
    answering = json(409, { ...problem, code: 'taken_when' });
    const asked = await take(item());
    await until(() => expect(store.getState().outbox.items[0]!.refused?.code).toBe('taken_when'));
    // it cannot be told at once: it waits as any write does
    answering = () => Promise.reject(new TypeError('Failed to fetch'));
    await answerRefused(store, store.getState().outbox.items[0]!, 'away');
    await until(async () => expect(await left()).toHaveLength(1));
    answering = json(200, { left: true });
    wake();
    await until(async () => expect(await left()).toEqual([]));
    expect(paths.at(-1)).toBe(`POST /api/time-questions/${asked.key}/left`);
  });

  it('say what this device’s clock shows as they go', async () => {
    const one = await take(item());
    await until(() => expect(came).toEqual([one.key]));
    expect(Math.abs(Date.parse(last!.headers['device-clock']!) - Date.now())).toBeLessThan(5000);
  });

  it('that are refused stay with why, hold up no other, and go again or away at a word', async () => {
    const { store } = await import('../app/store.ts');
    const { answerRefused } = await import('../app/sender.ts');
    answering = json(409, problem);
    const refused = await take(item());
    await until(() => expect(came).toEqual([refused.key]));
    answering = written;
    const other = await take(item());
    await until(() => expect(came).toEqual([refused.key, other.key]));
    await until(async () => expect(await left()).toEqual([refused.key]));
    await until(() => expect(store.getState().outbox.items[0]!.refused).toMatchObject(problem));
    await answerRefused(store, store.getState().outbox.items[0]!, 'again');
    await until(async () => expect(await left()).toEqual([]));
    expect(came.at(-1)).toBe(refused.key);
  });

  it('that cannot have been done when their clock said go as done now, at a word', async () => {
    const { store } = await import('../app/store.ts');
    const { answerRefused } = await import('../app/sender.ts');
    answering = json(409, { ...problem, code: 'taken_when' });
    const wrong = await take(item({ takenAt: '2020-01-01T00:00:00.000Z' }));
    await until(() => expect(store.getState().outbox.items[0]?.refused?.code).toBe('taken_when'));
    answering = written;
    await answerRefused(store, store.getState().outbox.items[0]!, 'now');
    await until(async () => expect(await left()).toEqual([]));
    expect(came.at(-1)).toBe(wrong.key);
    const { takenAt } = JSON.parse(last!.body) as { takenAt: string };
    expect(Math.abs(Date.parse(takenAt) - Date.now())).toBeLessThan(5000);
  });

  it('of somebody else wait until that person signs in here again', async () => {
    const theirs = await take(item({ personId: 'ilse', by: 'Ilse Marrand' }));
    const mine = await take(item());
    await until(() => expect(came).toEqual([mine.key]));
    await until(async () => expect(await left()).toEqual([theirs.key]));
  });

  it('go from the jotting where the device’s own store refuses', async () => {
    const { deviceStore } = await import('../app/deviceStore.ts');
    const { wake } = await import('../app/sender.ts');
    const full = vi.spyOn(deviceStore.outbox, 'put').mockRejectedValue(new Error('QuotaExceededError'));
    answering = unreached;
    const one = await take(item());
    await until(() => expect(came).toContain(one.key));
    expect(jottings()).toEqual([`zero-lash-jotting:write:${one.key}`]);
    full.mockRestore();
    answering = written;
    wake();
    await until(() => expect(jottings()).toEqual([]));
    expect(new Set(came)).toEqual(new Set([one.key]));
  });

  it('that are refused stay refused there too', async () => {
    const { store } = await import('../app/store.ts');
    const { deviceStore } = await import('../app/deviceStore.ts');
    const full = vi.spyOn(deviceStore.outbox, 'put').mockRejectedValue(new Error('QuotaExceededError'));
    answering = json(409, problem);
    const refused = await take(item());
    await until(() => expect(store.getState().outbox.items[0]?.refused).toMatchObject(problem));
    answering = written;
    const other = await take(item());
    await until(() => expect(came).toEqual([refused.key, other.key]));
    await until(async () => expect(await left()).toEqual([refused.key]));
    full.mockRestore();
  });

  it('are not kept again by a store that comes to it after they were sent', async () => {
    const { deviceStore } = await import('../app/deviceStore.ts');
    const { logItem, keepOnDevice, wake } = await import('../app/sender.ts');
    const quick = item();
    logItem(quick);
    wake();
    await until(() => expect(jottings()).toEqual([]));
    await keepOnDevice(quick);
    expect(await deviceStore.outbox.toArray()).toEqual([]);
    expect(came).toEqual([quick.key]);
  });

  it('go their own ways: each to its own path, in its own manner', async () => {
    await take(item({ kind: 'turning', method: 'PUT', path: 'rounds/r/turning', body: { at: 120 } }));
    await take(
      item({
        kind: 'tick',
        path: 'builds/b/ticks',
        body: { check: 'cold' },
        takenAt: '2031-02-02T00:00:00Z',
      }),
    );
    await until(async () => expect(await left()).toEqual([]));
    expect(paths).toEqual(['PUT /api/rounds/r/turning', 'POST /api/builds/b/ticks']);
    expect(JSON.parse(last!.body)).toEqual({ check: 'cold', takenAt: '2031-02-02T00:00:00Z' });
  });

  it('are not sent at all where something newer took their place', async () => {
    const { dropFromDevice, wake } = await import('../app/sender.ts');
    answering = unreached;
    const older = await take(item({ kind: 'turning' }));
    await until(() => expect(came).toContain(older.key));
    await dropFromDevice([older.key]);
    const newer = await take(item({ kind: 'turning' }));
    came = [];
    answering = written;
    wake();
    await until(async () => expect(await left()).toEqual([]));
    expect(came.at(-1)).toBe(newer.key);
    expect(came.slice(1)).not.toContain(older.key);
  });

  it('are shown as what the server answered at once, though the device still puts them away', async () => {
    const { store } = await import('../app/store.ts');
    const { deviceStore } = await import('../app/deviceStore.ts');
    const { whenSent } = await import('../app/sender.ts');
    let put = () => undefined as void;
    puttingAway = () => new Promise((resolve) => (put = resolve));
    const one = await take(item());
    await until(async () => expect(await left()).toEqual([]));
    expect(await deviceStore.outbox.get(one.key)).toBeDefined();
    // whatever the device's store tells meanwhile does not bring it back
    const shown: string[] = [];
    const stop = store.subscribe(() => shown.push(...store.getState().outbox.items.map(({ key }) => key)));
    const two = await take(item());
    await until(() => expect(shown).toContain(two.key));
    stop();
    expect(new Set(shown)).toEqual(new Set([two.key]));
    // and nobody leaves the device before it is put away
    const gone = whenSent(store, () => false);
    puttingAway = async () => undefined;
    put();
    expect(await gone).toBe(true);
    await until(async () => expect(await deviceStore.outbox.get(one.key)).toBeUndefined());
    expect(came.filter((key) => key === one.key)).toHaveLength(1);
  });

  it('wait again where the answer to them could not be put away', async () => {
    const one = item({ kind: 'reading' });
    let fails = 1;
    puttingAway = async () => {
      if (fails-- > 0) throw new Error('the store is gone');
    };
    await take(one);
    await until(() => expect(came.filter((key) => key === one.key)).toHaveLength(2));
    await until(async () => expect(await left()).not.toContain(one.key));
  });

  it('are told by their answer first: news of them waits for it, and other news does not', async () => {
    const { whenAnswered } = await import('../app/sender.ts');
    let answer: (said: Response) => void = () => undefined;
    answering = () => new Promise<Response>((resolve) => (answer = resolve));
    const one = await take(item());
    await until(() => expect(came).toContain(one.key));
    const heard: string[] = [];
    const own = whenAnswered([false, one.key]).then(() => heard.push('own'));
    await whenAnswered(['another']).then(() => heard.push('other'));
    await whenAnswered(['another']);
    expect(heard).toEqual(['other']);
    answer(json(201, NOTHING_NEW)());
    await own;
    expect(heard).toEqual(['other', 'own']);
  });

  it('let a step that needs them all wait for them, and no longer than is patient', async () => {
    const { store } = await import('../app/store.ts');
    const { whenSent } = await import('../app/sender.ts');
    await take(item({ buildId: 'needed' }));
    expect(await whenSent(store, ({ buildId }) => buildId === 'needed')).toBe(true);
    expect(await whenSent(store, ({ buildId }) => buildId === 'another')).toBe(true);
  });
});
