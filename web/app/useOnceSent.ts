import { useState } from 'react';
import { useStore } from 'react-redux';
import { askedBy } from './answerCache.ts';
import type { OutboxItem } from './outboxItem.ts';
import type { RootState } from './store.ts';

/** What is done only once the server has everything that was done here before it. */
export interface OnceSent {
  /** does it when all is sent; answers nothing where it could not be */
  readonly once: <Done>(work: () => Promise<Done>) => Promise<Done | undefined>;
  readonly waiting: boolean;
  /** it was wanted, and what was done before could not be sent */
  readonly unsent: boolean;
}

/**
 * Lets a step that is judged by what stands in a build (going on, signing off, judging a recheck, abandoning it) wait for what
 * this device has still to send of it: a tick tapped a moment ago is not missing.
 */
export function useOnceSent(buildId: string): OnceSent {
  return useOnceAllSent((item) => item.buildId === buildId);
}

/**
 * Lets a step wait for what this device has still to send of one kind.
 *
 * @example const { once } = useOnceAllSent((item) => item.personId === me);
 */
export function useOnceAllSent(of: (item: OutboxItem) => boolean): OnceSent {
  const store = useStore<RootState>();
  const [waiting, setWaiting] = useState(false);
  const [unsent, setUnsent] = useState(false);
  return {
    once: async (work) => {
      setWaiting(true);
      const by = askedBy();
      // the device's store is no part of the first page
      const { whenSent } = await import('./sender.ts');
      const sent = await whenSent(store, of);
      setWaiting(false);
      setUnsent(!sent);
      // whoever took the bench over meanwhile does not do it for them
      return sent && by === askedBy() ? work() : undefined;
    },
    waiting,
    unsent,
  };
}
