import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { ShopUnit } from '@zero-lash/core/length';

/** What this device prefers; the shop's own unit holds until somebody asks for the other. */
export interface Preferences {
  readonly unit: ShopUnit | null;
  readonly scheme: 'light' | 'dark' | null;
  readonly shortcutsShown: boolean;
  /** which school of feel this device measures by */
  readonly feel: FeelSchool;
  /** which bench it stands at; null for the first there is */
  readonly benchId: string | null;
  /** rounds whose reminders were read */
  readonly reminded: readonly string[];
}

/** The schools of feel; the first is the default. */
export type FeelSchool = 'go-no-go' | 'steps' | 'drag' | 'indicator' | 'gauge';

const REMINDED_KEPT = 40;

const initialState: Preferences = {
  unit: null,
  scheme: null,
  shortcutsShown: false,
  feel: 'go-no-go',
  benchId: null,
  reminded: [],
};

const slice = createSlice({
  name: 'preferences',
  initialState,
  reducers: {
    unitChosen: (state, action: PayloadAction<ShopUnit>) => ({ ...state, unit: action.payload }),
    schemeChosen: (state, action: PayloadAction<'light' | 'dark'>) => ({
      ...state,
      scheme: action.payload,
    }),
    feelChosen: (state, action: PayloadAction<FeelSchool>) => ({ ...state, feel: action.payload }),
    benchChosen: (state, action: PayloadAction<string>) => ({ ...state, benchId: action.payload }),
    remindersRead: (state, action: PayloadAction<string>) => ({
      ...state,
      reminded: [...state.reminded, action.payload].slice(-REMINDED_KEPT),
    }),
    shortcutsToggled: (state) => ({ ...state, shortcutsShown: !state.shortcutsShown }),
  },
});

export const { unitChosen, schemeChosen, feelChosen, benchChosen, remindersRead, shortcutsToggled } =
  slice.actions;
export const preferencesReducer = slice.reducer;
