import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

/** The place, as drafts are kept by, whose next reading is taken before the lock nut is tightened; null where none is. */
const slice = createSlice({
  name: 'locking',
  initialState: null as string | null,
  reducers: {
    notLockedYet: (_, action: PayloadAction<string>) => action.payload,
    lockedAgain: () => null,
  },
});

export const { notLockedYet, lockedAgain } = slice.actions;
export const lockingReducer = slice.reducer;
