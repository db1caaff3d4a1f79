import type {
  Bench,
  BenchChange,
  Instrument,
  InstrumentChange,
  NewBench,
  NewCheck,
  NewInstrument,
  SimulatedGauge,
  Tools,
} from '@zero-lash/contract/instruments';
import { api, write } from '../app/api.ts';

/** How a gauge is reached, and who holds it. */
export interface GaugeStatus {
  readonly instrument: string;
  readonly connected: boolean;
  readonly simulated: boolean;
  readonly heldBy?: string;
  /** this device holds it */
  readonly heldHere?: boolean;
}

export const instrumentsApi = api.injectEndpoints({
  endpoints: (build) => ({
    tools: build.query<Tools, void>({ query: () => 'tools', providesTags: ['Tools'] }),
    addInstrument: build.mutation<Instrument, NewInstrument>({
      query: (body) => write('POST', 'instruments', body),
      invalidatesTags: ['Tools', 'Gauges'],
    }),
    changeInstrument: build.mutation<Instrument, InstrumentChange & { id: string }>({
      query: ({ id, ...body }) => write('PATCH', `instruments/${id}`, body),
      invalidatesTags: ['Tools', 'Gauges'],
    }),
    checkInstrument: build.mutation<Instrument, NewCheck & { id: string }>({
      query: ({ id, ...body }) => write('POST', `instruments/${id}/checks`, body),
      invalidatesTags: ['Tools'],
    }),
    addBench: build.mutation<Bench, NewBench>({
      query: (body) => write('POST', 'benches', body),
      invalidatesTags: ['Tools'],
    }),
    changeBench: build.mutation<Bench, BenchChange & { id: string }>({
      query: ({ id, ...body }) => write('PATCH', `benches/${id}`, body),
      invalidatesTags: ['Tools'],
    }),
    gauges: build.query<GaugeStatus[], string>({
      query: (device) => `gauges?device=${device}`,
      providesTags: ['Gauges'],
    }),
    takeGauge: build.mutation<unknown, { id: string; device: string }>({
      query: ({ id, device }) => write('POST', `gauges/${id}/hold`, { device }),
      invalidatesTags: ['Gauges'],
    }),
    letGaugeGo: build.mutation<unknown, { id: string; device: string }>({
      query: ({ id, device }) => write('POST', `gauges/${id}/release`, { device }),
      invalidatesTags: ['Gauges'],
    }),
    simulateGauge: build.mutation<unknown, SimulatedGauge & { id: string; press: boolean }>({
      query: ({ id, ...body }) => write('POST', `gauges/${id}/simulation`, body),
    }),
  }),
});

export const {
  useToolsQuery,
  useAddInstrumentMutation,
  useChangeInstrumentMutation,
  useCheckInstrumentMutation,
  useAddBenchMutation,
  useChangeBenchMutation,
  useGaugesQuery,
  useTakeGaugeMutation,
  useLetGaugeGoMutation,
  useSimulateGaugeMutation,
} = instrumentsApi;
