import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { Try } from '@zero-lash/core/measuring';
import { putLogged, TRIES } from '../app/pendingLog.ts';
import { persistence } from '../app/persistence.ts';
import { addSlice } from '../app/store.ts';
import type { TriesByPlace } from './triesKept.ts';

declare module '../app/store.ts' {
  interface RoomSlices {
    tries: TriesByPlace;
  }
}

const slice = createSlice({
  name: 'tries',
  initialState: {} as TriesByPlace,
  reducers: {
    triesMade: (
      state,
      { payload }: PayloadAction<{ readonly place: string; readonly tries: readonly Try[] }>,
    ) => {
      const { [payload.place]: _, ...rest } = state;
      return payload.tries.length === 0 ? rest : { ...rest, [payload.place]: payload.tries };
    },
    /** what the device kept from before; what was made since the page opened stays */
    triesRead: (state, { payload }: PayloadAction<TriesByPlace>) => ({ ...payload, ...state }),
  },
});

export const { triesMade, triesRead } = slice.actions;
export const triesReducer = slice.reducer;
addSlice('tries', triesReducer);

persistence.startListening({
  actionCreator: triesMade,
  effect: async ({ payload: { place, tries } }) => {
    putLogged(TRIES + place, tries);
    const { keepTries } = await import('./triesKept.ts');
    await keepTries(place, tries);
  },
});
