import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { OutboxItem } from './outboxItem.ts';

/** What is pending, and whether the server is reached. */
export interface Outbox {
  readonly items: readonly OutboxItem[];
  readonly reached: boolean;
}

const slice = createSlice({
  name: 'outbox',
  initialState: { items: [], reached: true } as Outbox,
  reducers: {
    /** something was done at the bench: shown at once, whatever becomes of it; what it takes the place of goes */
    itemPut: (
      state,
      { payload }: PayloadAction<{ readonly item: OutboxItem; readonly insteadOf: readonly string[] }>,
    ) => ({
      ...state,
      items: [
        ...state.items.filter(({ key }) => key !== payload.item.key && !payload.insteadOf.includes(key)),
        payload.item,
      ],
    }),
    /** the server answered it: what it answered is shown in its place */
    itemGone: (state, { payload: gone }: PayloadAction<string>) =>
      state.items.some(({ key }) => key === gone)
        ? { ...state, items: state.items.filter(({ key }) => key !== gone) }
        : state,
    /** what the device's store has now */
    outboxRead: (state, { payload }: PayloadAction<readonly OutboxItem[]>) =>
      sameItems(state.items, payload) ? state : { ...state, items: payload },
    serverReached: (state, { payload }: PayloadAction<boolean>) =>
      state.reached === payload ? state : { ...state, reached: payload },
  },
});

/** Whether nothing has come, gone or been refused: then nothing is drawn again. */
function sameItems(before: readonly OutboxItem[], after: readonly OutboxItem[]): boolean {
  return (
    before.length === after.length &&
    before.every(({ key, refused }, index) => {
      const other = after[index]!;
      return key === other.key && (refused === null) === (other.refused === null);
    })
  );
}

export const { itemGone, itemPut, outboxRead, serverReached } = slice.actions;
export const outboxReducer = slice.reducer;
