import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { addSlice } from '../app/store.ts';

declare module '../app/store.ts' {
  interface RoomSlices {
    locking: string | null;
  }
}

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
addSlice('locking', slice.reducer);
