import type { LiveEvent } from '@zero-lash/contract/live';
import type { PagePath } from '@zero-lash/contract/pages';
import { matchPath } from 'react-router';
import { api } from '../app/api.ts';
import { thisDevice } from '../app/device.ts';
import { serverReached } from '../app/outbox.ts';
import { wake, whenAnswered } from '../app/sender.ts';
import { sessionApi } from '../app/session.ts';
import type { store as applicationStore } from '../app/store.ts';
import { applyUpdate, readAgain, readBehind } from '../builds/endpoints.ts';
import { sequenceOf } from '../builds/updateSequence.ts';
import { gaugeSaid } from '../instruments/gauge.ts';
import { changesHeard } from './changes.ts';

type BuildUpdate = Extract<LiveEvent, { kind: 'build' }>;
type Store = typeof applicationStore;

/** Where the page is, and when it goes elsewhere. */
export interface Places {
  readonly state: { readonly location: { readonly pathname: string } };
  readonly subscribe: (moved: () => void) => () => void;
}

const SIGN_IN: PagePath = '/sign-in';

/** What clocks may be apart, and a request on its way. */
const MARGIN_MS = 1000;

/** How long a stream that was refused rests before it is opened again. */
const REOPEN_MS = 3000;

/**
 * Hears what others change of what is shown here, for as long as somebody is signed in: one stream a page. On a build's page it
 * hears that build row by row too, and what a gauge held by this device says. A page out of sight hears nothing, unless a build
 * stands on it: a browser has only so many connections to one server. When it comes back it asks for everything again.
 *
 * @returns ends it
 */
export function listen(store: Store, places: Places): () => void {
  const session = sessionApi.endpoints.session.select();
  const changes = changesHeard(store.dispatch);
  let current: Stream | null = null;
  /** from when on nothing was heard; null while something is */
  let silentSince: number | null = performance.timeOrigin;
  const silent = () => {
    silentSince ??= Date.now();
  };
  /** those that go on until the next one is there */
  const ending: Stream[] = [];
  const endOthers = () => {
    for (const stream of ending.splice(0)) stream.close();
  };

  /** What is to be heard now: whose, and of which build; null where nothing is. */
  const wanted = () => {
    const { data } = session(store.getState());
    const { pathname } = places.state.location;
    if (!data || pathname === SIGN_IN) return null;
    const build = matchPath('/builds/:id', pathname)?.params.id ?? null;
    return build !== null || !document.hidden ? { person: data.person.id, build } : null;
  };
  const follow = () => {
    const want = wanted();
    if (want?.person === current?.person && want?.build === current?.build) return;
    const goesOn = want !== null && current?.person === want.person;
    if (current) ending.push(current);
    for (const stream of ending) stream.replaced();
    if (!goesOn) {
      silent();
      endOthers();
    }
    current =
      want &&
      new Stream({
        ...want,
        store,
        changes,
        // between the two nothing is missed: the one before ends once this one is there
        opened: (quietMs) => {
          endOthers();
          if (silentSince !== null && quietMs < Date.now() - silentSince + MARGIN_MS) changes.everything();
          silentSince = null;
        },
        lost: silent,
      });
  };
  const endings = [store.subscribe(follow), places.subscribe(follow)];
  document.addEventListener('visibilitychange', follow);
  follow();
  return () => {
    for (const end of endings) end();
    document.removeEventListener('visibilitychange', follow);
    current?.close();
    current = null;
    endOthers();
  };
}

interface StreamTerms {
  readonly person: string;
  readonly build: string | null;
  readonly store: Store;
  readonly changes: ReturnType<typeof changesHeard>;
  /** told each time it opens, with for how long nothing was changed by then */
  readonly opened: (quietMs: number) => void;
  /** told when it breaks off */
  readonly lost: () => void;
}

/** One stream of events from the server, which comes again by itself whenever it breaks off. */
class Stream {
  readonly person: string;
  readonly build: string | null;
  readonly #terms: StreamTerms;
  #source: EventSource;
  #reopening: ReturnType<typeof setTimeout> | undefined;
  #replaced = false;

  constructor(terms: StreamTerms) {
    this.person = terms.person;
    this.build = terms.build;
    this.#terms = terms;
    this.#source = this.#open();
  }

  close(): void {
    clearTimeout(this.#reopening);
    this.#source.close();
  }

  /** Another takes its place, and hears the gauge from here on: a press is said once. */
  replaced(): void {
    this.#replaced = true;
  }

  #open(): EventSource {
    const asked = this.build === null ? '' : `?build=${this.build}&device=${thisDevice()}`;
    const source = new EventSource(`/api/live${asked}`);
    source.onopen = () => {
      this.#terms.store.dispatch(serverReached(true));
      wake();
    };
    source.onerror = () => this.#failed();
    source.onmessage = ({ data }: MessageEvent<string>) => this.#told(JSON.parse(data) as LiveEvent);
    return source;
  }

  #failed(): void {
    const { store, lost } = this.#terms;
    lost();
    if (this.#source.readyState !== EventSource.CLOSED) {
      store.dispatch(serverReached(false));
      return;
    }
    // refused, and not only broken off: the browser gives up, so this asks who is signed in, and comes again
    store.dispatch(api.util.invalidateTags(['Session']));
    clearTimeout(this.#reopening);
    this.#reopening = setTimeout(() => {
      this.#source = this.#open();
    }, REOPEN_MS);
  }

  #told(event: LiveEvent): void {
    const { store, changes } = this.#terms;
    switch (event.kind) {
      case 'quiet':
        this.#terms.opened(event.ms);
        break;
      case 'build':
        void this.#updated(event);
        break;
      case 'here': {
        // what was written while no stream was open was not heard
        const missed = sequenceOf(event.build).begin(event.seq);
        if (missed === 'all') store.dispatch(readAgain(event.build));
        if (missed === 'something') readBehind(store.dispatch, store.getState(), event);
        break;
      }
      case 'changed':
        changes.told(event);
        break;
      case 'gauge-link':
        store.dispatch(api.util.invalidateTags(['Gauges']));
        break;
      case 'gauge': {
        const { kind: _, device: _device, ...said } = event;
        if (!this.#replaced) store.dispatch(gaugeSaid(said));
      }
    }
  }

  async #updated(update: BuildUpdate): Promise<void> {
    const { store } = this.#terms;
    await whenAnswered(update.changes.map(({ row }) => row !== null && 'id' in row && row.id));
    await applyUpdate(store.dispatch, store.getState, update);
  }
}
