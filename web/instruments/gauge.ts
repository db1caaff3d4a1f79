import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { LiveEvent } from '@zero-lash/contract/live';
import { addSlice } from '../app/store.ts';

declare module '../app/store.ts' {
  interface RoomSlices {
    gauge: GaugeState;
  }
}

/** One press of a gauge's button, as this device heard it. */
export interface GaugePress extends Omit<Extract<LiveEvent, { kind: 'gauge' }>, 'kind' | 'device'> {
  /** counts up, so that two equal readings are two */
  readonly number: number;
}

/** What a simulated gauge is told, as it is typed. */
export interface SimulatedNature {
  readonly gap: string;
  readonly noise: string;
  readonly drift: string;
  readonly dropOuts: string;
  readonly unit: 'mm' | 'in';
}

/** What the gauge that this device holds said last, and how its zero stands: it outlasts the step to the next point. */
export interface GaugeState {
  readonly last: GaugePress | null;
  /** mm that a gauge's zero is off, by instrument; a gauge whose zero holds is not there */
  readonly zeroOff: Readonly<Record<string, number>>;
  readonly nature: SimulatedNature;
}

const initialState: GaugeState = {
  last: null,
  zeroOff: {},
  nature: { gap: '0.15', noise: '0.001', drift: '0', dropOuts: '0', unit: 'mm' },
};

const slice = createSlice({
  name: 'gauge',
  initialState,
  reducers: {
    gaugeSaid: (state, { payload }: PayloadAction<Omit<GaugePress, 'number'>>) => ({
      ...state,
      last: { ...payload, number: (state.last?.number ?? 0) + 1 },
    }),
    zeroChecked: (
      state,
      {
        payload: { instrument, off },
      }: PayloadAction<{ readonly instrument: string; readonly off: number | null }>,
    ) => {
      const { [instrument]: _, ...rest } = state.zeroOff;
      return { ...state, zeroOff: off === null ? rest : { ...rest, [instrument]: off } };
    },
    natureTold: (state, { payload }: PayloadAction<Partial<SimulatedNature>>) => ({
      ...state,
      nature: { ...state.nature, ...payload },
    }),
  },
});

export const { gaugeSaid, zeroChecked, natureTold } = slice.actions;
export const gaugeReducer = slice.reducer;
addSlice('gauge', gaugeReducer);
