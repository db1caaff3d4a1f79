import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { Try } from '@zero-lash/core/measuring';

/** The tries of points that are not decided yet, by `round:point`. */
export type TriesByPlace = Readonly<Record<string, readonly Try[]>>;

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
