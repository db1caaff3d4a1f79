import type { BuildWrite } from '@zero-lash/contract/builds';
import { startSending } from '../app/sender.ts';
import type { store as applicationStore } from '../app/store.ts';
import { triesRead } from '../measuring/tries.ts';
import { readTries } from '../measuring/triesKept.ts';
import { peopleApi } from '../people/endpoints.ts';
import { buildsApi, hearOf } from './endpoints.ts';

/** Sends what was done at the bench, for whoever is signed in, and lays the answers into what is shown. */
export function sendBenchWork(store: typeof applicationStore): void {
  void readTries().then((tries) => store.dispatch(triesRead(tries)));
  startSending(store, {
    sender: () => peopleApi.endpoints.session.select()(store.getState()).data?.person.id,
    onWritten: async (answer, item) => {
      // kept on the device before it leaves the outbox, so that a reload without the server finds it in one of the two
      await hearOf(store.dispatch, store.getState, answer as BuildWrite);
      store.dispatch(
        buildsApi.util.invalidateTags(item.kind === 'setting' ? ['Engine', 'Drawer'] : ['Engine']),
      );
    },
  });
}
