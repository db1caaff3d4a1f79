import type { ForecastsOfSheet } from '@zero-lash/contract/headwork';
import { api } from '../app/api.ts';

const headWorkApi = api.injectEndpoints({
  endpoints: (build) => ({
    forecastsOfSheet: build.query<ForecastsOfSheet, string>({
      query: (sheetId) => `sheets/${sheetId}/forecasts`,
      providesTags: ['Engines'],
    }),
  }),
});

export const { useForecastsOfSheetQuery } = headWorkApi;
