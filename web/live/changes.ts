import type { LiveEvent, Topic } from '@zero-lash/contract/live';
import { api, isOwnWrite, type Tag } from '../app/api.ts';
import type { AppDispatch } from '../app/store.ts';

/** What shows a thing that was changed: every answer with one of these tags is asked for again. */
const SHOWN_BY: Readonly<Record<Topic, readonly Tag[]>> = {
  bench: ['Today', 'Engines', 'Engine', 'Rechecks'],
  work: ['Today', 'Engine'],
  engines: ['Engines', 'Engine', 'Today', 'Build', 'Rechecks', 'Owners', 'Usage'],
  owners: ['Owners', 'Engines', 'Engine', 'Rechecks', 'Today', 'Mailbox'],
  usage: ['Engines', 'Engine', 'Today', 'Build', 'Rechecks', 'Usage'],
  rechecks: ['Rechecks', 'Today', 'Engines', 'Engine'],
  sheets: ['Sheet', 'Today', 'Engines', 'Engine'],
  tools: ['Tools', 'Gauges', 'Drawer'],
  gauges: ['Gauges'],
  drawer: ['Drawer'],
  people: ['People', 'Session'],
  shop: ['Session', 'Today', 'Engines', 'Engine', 'Rechecks', 'People'],
  'know-how': ['Build'],
  feeds: ['Feeds'],
  letters: ['Mailbox'],
};

/** A build that is open is followed row by row, and read again by its own numbers where something was missed. */
const FOLLOWED: readonly Tag[] = ['Build'];

/** What comes within so long of each other is asked for once. */
const TOGETHER_MS = 200;

/**
 * Collects what others changed, and has what shows it asked for again.
 *
 * @example changesHeard(store.dispatch).told({ topics: ['engines'], write: null })
 */
export function changesHeard(dispatch: AppDispatch) {
  const due = new Set<Tag>();
  let soon: ReturnType<typeof setTimeout> | undefined;
  const ask = (tags: readonly Tag[]) => {
    for (const tag of tags) due.add(tag);
    soon ??= setTimeout(() => {
      soon = undefined;
      const asked = [...due];
      due.clear();
      dispatch(api.util.invalidateTags(asked));
    }, TOGETHER_MS);
  };
  return {
    /** something was changed: by this page itself is no news */
    told: ({ topics, write }: Pick<Extract<LiveEvent, { kind: 'changed' }>, 'topics' | 'write'>) => {
      if (!isOwnWrite(write)) ask(topics.flatMap((topic) => SHOWN_BY[topic]));
    },
    /** nobody knows what was changed while nothing was heard */
    everything: () =>
      ask([...new Set(Object.values(SHOWN_BY).flat())].filter((tag) => !FOLLOWED.includes(tag))),
  };
}
