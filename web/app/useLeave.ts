import { api, problemFrom } from './api.ts';
import { clearAnswers } from './answerCache.ts';
import { useAppDispatch } from './store.ts';
import { useOnceAllSent } from './useOnceSent.ts';
import { useSession } from './useSession.ts';
import { useState } from 'react';

/** How a person leaves this device to the next. */
export interface Leaving {
  /** leaves once what this person did is sent; called again where it could not be, leaves all the same */
  readonly leave: () => Promise<void>;
  readonly leaving: boolean;
  /** what this person did could not be sent: it stays on this device until they sign in again */
  readonly unsent: boolean;
  /** the server could not be told: this person is still signed in */
  readonly stillIn: boolean;
}

/**
 * Signs a person out once the server has what they did: nobody's work is sent under another's name, so what is unsent as
 * hands change would wait here, and the build would stand still for the next at the bench.
 *
 * @example const { leave, unsent } = useLeave(signOut);
 */
export function useLeave(signOut: () => Promise<{ error?: unknown }>): Leaving {
  const dispatch = useAppDispatch();
  const me = useSession()?.person.id;
  const { once, unsent } = useOnceAllSent(({ personId }) => personId === me);
  const [leaving, setLeaving] = useState(false);
  const [stillIn, setStillIn] = useState(false);
  async function go() {
    const { error } = await signOut();
    // whose session has ended already is out
    const problem = problemFrom(error);
    const gone = problem === null || problem.code === 'unauthenticated';
    setStillIn(!gone);
    if (!gone) return;
    await clearAnswers();
    dispatch(api.util.resetApiState());
  }
  return {
    leave: async () => {
      setLeaving(true);
      await (unsent ? go() : once(go));
      setLeaving(false);
    },
    leaving,
    unsent,
    stillIn,
  };
}
