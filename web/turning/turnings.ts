import { createSlice, original, type PayloadAction } from '@reduxjs/toolkit';
import type { Turning } from '@zero-lash/contract/turning';

/** Where the crank was said to stand and the server does not know yet, by round. */
export type Turnings = Readonly<Record<string, Turning>>;

interface Turned {
  readonly roundId: string;
  readonly turning: Turning;
}

const slice = createSlice({
  name: 'turnings',
  initialState: {} as Turnings,
  reducers: {
    crankTurned: (state, { payload }: PayloadAction<Turned>) => ({
      ...state,
      [payload.roundId]: payload.turning,
    }),
    /** the server has it; what was said since then stays to be sent */
    turningSent: (state, { payload: { roundId, turning } }: PayloadAction<Turned>) => {
      if (original(state)?.[roundId] !== turning) return state;
      const { [roundId]: _, ...rest } = state;
      return rest;
    },
  },
});

export const { crankTurned, turningSent } = slice.actions;
export const turningsReducer = slice.reducer;
