// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import type { Session } from '@zero-lash/contract/people';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { api } from '../app/api.ts';
import { sessionApi } from '../app/session.ts';
import { store } from '../app/store.ts';
import { listen, type Places } from '../live/listen.ts';

const BUILD = '5f0c2f63-2f2b-4d4c-9d6e-0a1d6f1c9a10';

/** A stream as a browser has it, opened and spoken into by the test. */
class FakeStream {
  static all: FakeStream[] = [];
  static readonly CLOSED = 2;
  readyState = 0;
  onopen: () => void = () => undefined;
  onerror: () => void = () => undefined;
  onmessage: (event: { data: string }) => void = () => undefined;
  readonly url: string;
  constructor(url: string) {
    this.url = url;
    FakeStream.all.push(this);
  }
  close() {
    this.readyState = 2;
  }
  /** the server answers, and says for how long nothing was changed */
  begins(ms: number) {
    this.readyState = 1;
    this.onopen();
    this.says({ kind: 'quiet', ms });
  }
  says(event: object) {
    this.onmessage({ data: JSON.stringify(event) });
  }
  static get open() {
    return FakeStream.all.filter(({ readyState }) => readyState < 2).map(({ url }) => url.split('&')[0]);
  }
}

describe('a page that listens', () => {
  let at = '/';
  let moved = () => undefined as void;
  const places: Places = {
    get state() {
      return { location: { pathname: at } };
    },
    subscribe: (told) => {
      moved = told;
      return () => undefined;
    },
  };
  const go = (to: string) => {
    at = to;
    moved();
  };
  const asked: string[][] = [];
  const signIn = () =>
    store.dispatch(
      sessionApi.util.upsertQueryData('session', undefined, { person: { id: 'tobin' } } as Session),
    );

  beforeEach(async () => {
    vi.stubGlobal('EventSource', FakeStream);
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
    FakeStream.all = [];
    asked.length = 0;
    at = '/';
    await signIn();
    const end = listen(
      {
        ...store,
        dispatch: ((action: never) => {
          if (api.util.invalidateTags.match(action)) asked.push((action as { payload: string[] }).payload);
          return action;
        }) as never,
      },
      places,
    );
    return () => {
      end();
      vi.useRealTimers();
      vi.unstubAllGlobals();
      store.dispatch(api.util.resetApiState());
    };
  });

  it('has one stream, wherever it is, and none where it signs in', () => {
    expect(FakeStream.open).toEqual(['/api/live']);
    FakeStream.all[0]!.begins(1e9);
    go('/engines');
    expect(FakeStream.open).toEqual(['/api/live']);
    go(`/builds/${BUILD}`);
    // the one before goes on until the next is there: nothing is missed between the two
    expect(FakeStream.open).toEqual(['/api/live', `/api/live?build=${BUILD}`]);
    go('/engines');
    go(`/builds/${BUILD}`);
    FakeStream.all.at(-1)!.begins(1e9);
    expect(FakeStream.open).toEqual([`/api/live?build=${BUILD}`]);
    go('/sign-in');
    expect(FakeStream.open).toEqual([]);
  });

  it('asks again for what may have been changed while nothing was heard, and for nothing else', () => {
    FakeStream.all[0]!.begins(1e9);
    vi.advanceTimersByTime(1000);
    expect(asked).toEqual([]);
    // it broke off, and something was changed before it was back
    FakeStream.all[0]!.onerror();
    FakeStream.all[0]!.begins(1);
    vi.advanceTimersByTime(1000);
    expect(asked.flat()).toContain('Today');
    asked.length = 0;
    FakeStream.all[0]!.onerror();
    FakeStream.all[0]!.begins(60_000);
    go(`/builds/${BUILD}`);
    FakeStream.all[1]!.begins(1);
    vi.advanceTimersByTime(1000);
    expect(asked).toEqual([]);
    FakeStream.all[1]!.says({ kind: 'changed', topics: ['drawer'], write: null });
    vi.advanceTimersByTime(1000);
    expect(asked).toEqual([['Drawer']]);
  });

  it('asks at once where its first page was read before the last change', () => {
    FakeStream.all[0]!.begins(0);
    vi.advanceTimersByTime(1000);
    expect(asked.flat()).toContain('Engines');
  });

  it('listens for nobody once nobody is signed in', () => {
    store.dispatch(api.util.resetApiState());
    expect(FakeStream.open).toEqual([]);
  });
});
