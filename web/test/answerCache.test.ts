// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { store } from '../app/store.ts';
import { sessionApi } from '../app/session.ts';
import { askedBy, clearAnswers, cacheAnswer, cachedAnswer } from '../app/answerCache.ts';

beforeEach(() => clearAnswers());

describe('what a device opens pages with', () => {
  it('is the last answer of each page, and of lists as they open', async () => {
    await cacheAnswer('session', { person: 'Tobin' });
    await cacheAnswer('session', { person: 'Osk' });
    expect(await cachedAnswer('session')).toEqual({ person: 'Osk' });
    for (const url of [
      'engines?limit=100',
      'rechecks?limit=50&state=open',
      'rechecks/filters',
      'usage/questions',
    ]) {
      await cacheAnswer(url, url);
      expect(await cachedAnswer(url), url).toBe(url);
    }
    // what was looked for by a word, and pages further on, would be others each time
    for (const url of ['engines?limit=100&search=saw', 'engines?limit=100&offset=100', 'people', 'fleet/1']) {
      await cacheAnswer(url, url);
      expect(await cachedAnswer(url), url).toBeUndefined();
    }
  });

  it('is nobody’s any more once they left, though it comes in after', async () => {
    await cacheAnswer('today', 'kept');
    const by = askedBy();
    const onItsWay = cacheAnswer('session', { person: 'Tobin' }, by);
    await clearAnswers();
    await onItsWay;
    await cacheAnswer('today', 'late', by);
    expect([await cachedAnswer('session'), await cachedAnswer('today')]).toEqual([undefined, undefined]);
    await cacheAnswer('session', { person: 'Osk' });
    expect(await cachedAnswer('session')).toEqual({ person: 'Osk' });
  });

  it('is gone once the server says that they are signed out, and stays while it is not reached', async () => {
    const ask = () =>
      store.dispatch(sessionApi.endpoints.session.initiate(undefined, { forceRefetch: true }));
    await cacheAnswer('session', { person: { id: 'p', name: 'Tobin' } });
    await cacheAnswer('today', 'kept');
    const server = vi.spyOn(globalThis, 'fetch').mockRejectedValue(new TypeError('Failed to fetch'));
    expect((await ask()).data).toEqual({ person: { id: 'p', name: 'Tobin' } });
    server.mockResolvedValue(
      Response.json({ code: 'unauthenticated', detail: 'Sign in first.' }, { status: 401 }),
    );
    expect((await ask()).isError).toBe(true);
    expect([await cachedAnswer('session'), await cachedAnswer('today')]).toEqual([undefined, undefined]);
  });
});

describe('whoever signs in while the page still asks who is signed in', () => {
  it('is in, though the refusal of what was asked before comes last', async () => {
    const osk = { person: { id: 'o', name: 'Osk' } };
    let signedIn = false;
    let refuse!: () => void;
    const refused = new Promise<void>((resolve) => (refuse = resolve));
    vi.spyOn(globalThis, 'fetch').mockImplementation(async (input) => {
      const asked = input as Request;
      if (asked.method === 'POST') signedIn = true;
      else if (!signedIn) {
        await refused;
        return Response.json({ code: 'unauthenticated', detail: 'Sign in first.' }, { status: 401 });
      }
      return Response.json(osk);
    });
    const first = store.dispatch(sessionApi.endpoints.session.initiate(undefined, { forceRefetch: true }));
    await store.dispatch(sessionApi.endpoints.signIn.initiate({ name: 'Osk', passphrase: 'second' }));
    refuse();
    await first;
    const { data, isError } = sessionApi.endpoints.session.select()(store.getState());
    expect({ data, isError }).toEqual({ data: osk, isError: false });
    await vi.waitFor(async () => expect(await cachedAnswer('session')).toEqual(osk));
  });
});
