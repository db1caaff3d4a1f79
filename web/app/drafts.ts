import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

/** What is typed at a lash point and not yet sent, by `round:point`; it survives a reload. */
export type Drafts = Readonly<Record<string, string>>;

const slice = createSlice({
  name: 'drafts',
  initialState: {} as Drafts,
  reducers: {
    draftTyped: (state, action: PayloadAction<{ readonly key: string; readonly text: string }>) => {
      const { key, text } = action.payload;
      const { [key]: _, ...rest } = state;
      return text === '' ? rest : { ...rest, [key]: text };
    },
  },
});

export const { draftTyped } = slice.actions;
export const draftsReducer = slice.reducer;

/** The key a draft is kept under. */
export const draftKey = (roundId: string, point: string) => `${roundId}:${point}`;
