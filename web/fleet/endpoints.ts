import type { FleetList, FleetSays } from '@zero-lash/contract/fleet';
import { api } from '../app/api.ts';

const fleetApi = api.injectEndpoints({
  endpoints: (build) => ({
    fleet: build.query<FleetList, void>({ query: () => 'fleet', providesTags: ['Rechecks'] }),
    fleetSays: build.query<FleetSays, string>({
      query: (id) => `fleet/${id}`,
      providesTags: ['Rechecks'],
    }),
  }),
});

export const { useFleetQuery, useFleetSaysQuery } = fleetApi;
