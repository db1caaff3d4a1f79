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
  /** the key that a pedal, a foot switch or a page turner sends for each of these, as it was taught on this device */
  readonly pedal: Readonly<Partial<Record<PedalAction, string>>>;
  /** says the next point, blade and verdict aloud */
  readonly aloud: boolean;
  /** sounds a short tone for each verdict */
  readonly tones: boolean;
  /** what an upper limit that is just met means was read on this device */
  readonly limitExplained: boolean;
  /** keys without ctrl or alt do more than type */
  readonly shortcuts: boolean;
  /** the first-day guide was taken off Today */
  readonly guidePutAway: boolean;
}

/** The schools of feel; the first is the default. */
export type FeelSchool = 'go-no-go' | 'blade-by-blade' | 'steps' | 'drag' | 'indicator' | 'gauge';

/** What a pedal can be taught. */
export type PedalAction = 'goes' | 'wont' | 'next' | 'back';

const initialState: Preferences = {
  unit: null,
  scheme: null,
  shortcutsShown: false,
  feel: 'go-no-go',
  benchId: null,
  pedal: {},
  aloud: false,
  tones: false,
  limitExplained: false,
  shortcuts: true,
  guidePutAway: false,
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
    /** a key does one thing: taught another, it forgets the first; null forgets it */
    pedalTaught: (
      state,
      { payload }: PayloadAction<{ readonly action: PedalAction; readonly key: string | null }>,
    ) => {
      const others = Object.entries(state.pedal).filter(
        ([action, key]) => action !== payload.action && key !== payload.key,
      );
      return {
        ...state,
        pedal: Object.fromEntries(payload.key ? [...others, [payload.action, payload.key]] : others),
      };
    },
    limitExplained: (state) => ({ ...state, limitExplained: true }),
    aloudChosen: (state, action: PayloadAction<boolean>) => ({ ...state, aloud: action.payload }),
    tonesChosen: (state, action: PayloadAction<boolean>) => ({ ...state, tones: action.payload }),
    shortcutsChosen: (state, action: PayloadAction<boolean>) => ({ ...state, shortcuts: action.payload }),
    guidePutAway: (state) => ({ ...state, guidePutAway: true }),
    shortcutsToggled: (state) => ({ ...state, shortcutsShown: !state.shortcutsShown }),
  },
});

export const {
  unitChosen,
  schemeChosen,
  feelChosen,
  benchChosen,
  pedalTaught,
  limitExplained,
  aloudChosen,
  tonesChosen,
  shortcutsChosen,
  shortcutsToggled,
  guidePutAway,
} = slice.actions;
export const preferencesReducer = slice.reducer;
