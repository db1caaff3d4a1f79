import { createListenerMiddleware } from '@reduxjs/toolkit';
import { draftsReducer, type Drafts } from './drafts.ts';
import { preferencesReducer, type Preferences } from './preferences.ts';

interface Kept {
  readonly preferences: Preferences;
  readonly drafts: Drafts;
}

const PLACE = 'zero-lash';

/** What this device kept from before: preferences, and what was typed but not sent. */
export function readPersisted(): Kept {
  const fresh: Kept = {
    preferences: preferencesReducer(undefined, { type: 'kept/absent' }),
    drafts: draftsReducer(undefined, { type: 'kept/absent' }),
  };
  try {
    const kept = JSON.parse(localStorage.getItem(PLACE) ?? '{}') as Partial<Kept>;
    return {
      preferences: { ...fresh.preferences, ...kept.preferences, shortcutsShown: false },
      drafts: kept.drafts ?? fresh.drafts,
    };
  } catch {
    return fresh;
  }
}

export const persistence = createListenerMiddleware();

persistence.startListening({
  predicate: (_action, now, before) => {
    const [current, earlier] = [now as Kept, before as Kept];
    return current.preferences !== earlier.preferences || current.drafts !== earlier.drafts;
  },
  effect: (_action, { getState }) => {
    const { preferences, drafts } = getState() as Kept;
    try {
      localStorage.setItem(PLACE, JSON.stringify({ preferences, drafts }));
    } catch {
      // A full or forbidden store costs the convenience only; nothing sent depends on it.
    }
  },
});
