import type { BuildWrite } from '@zero-lash/contract/builds';
import { QUESTION_LEFT, startSending } from '../app/sender.ts';
import type { store as applicationStore } from '../app/store.ts';
import { triesRead } from '../measuring/tries.ts';
import { readTries } from '../measuring/triesKept.ts';
import { sessionApi } from '../app/session.ts';
import { api } from '../app/api.ts';
import { METER_FIGURE, USED } from '../usage/endpoints.ts';
import './rooms.ts';
import { buildsApi, applyUpdate } from '../builds/endpoints.ts';

/** Of a whole round of meters the lists are asked for again once, this long after the last of them was sent. */
const ROUND_OVER_MS = 250;
let metersRead: ReturnType<typeof setTimeout> | undefined;

/** Sends what was done at the bench, for whoever is signed in, and applies the answers to what is shown. */
export function sendBenchWork(store: typeof applicationStore): void {
  void readTries().then((tries) => store.dispatch(triesRead(tries)));
  startSending(store, {
    sender: () => sessionApi.endpoints.session.select()(store.getState()).data?.person.id,
    onWritten: async (answer, item) => {
      if (item.kind === QUESTION_LEFT) return;
      if (item.kind === METER_FIGURE) {
        clearTimeout(metersRead);
        metersRead = setTimeout(() => store.dispatch(api.util.invalidateTags([...USED])), ROUND_OVER_MS);
        return;
      }
      // kept on the device before it leaves the outbox, so that a reload without the server finds it in one of the two
      await applyUpdate(store.dispatch, store.getState, answer as BuildWrite);
      store.dispatch(
        buildsApi.util.invalidateTags(item.kind === 'setting' ? ['Engine', 'Drawer'] : ['Engine']),
      );
    },
  });
}
