import type { Session } from '@zero-lash/contract/people';
import type { Today } from '@zero-lash/contract/today';
import { sessionApi } from '../app/session.ts';
import { todayApi } from '../today/endpoints.ts';
import { cacheAnswer } from '../app/answerCache.ts';
import { store } from '../app/store.ts';

/**
 * Takes what the server put into the first page, or asks for who is signed in while the page is still being put
 * together.
 */
export function takePreloaded(): void {
  const preloaded = document.getElementById('preload')?.textContent;
  if (!preloaded) {
    void store.dispatch(sessionApi.endpoints.session.initiate());
    return;
  }
  const { session, today } = JSON.parse(preloaded) as { session: Session; today: Today };
  store.dispatch(
    sessionApi.util.upsertQueryEntries([{ endpointName: 'session', arg: undefined, value: session }]),
  );
  void cacheAnswer('session', session);
  void cacheAnswer('today', today);
  store.dispatch(todayApi.util.upsertQueryEntries([{ endpointName: 'today', arg: undefined, value: today }]));
}
