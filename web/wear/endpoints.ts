import type { WearOfBuild } from '@zero-lash/contract/wear';
import { api } from '../app/api.ts';

const wearApi = api.injectEndpoints({
  endpoints: (build) => ({
    wearOfEngine: build.query<WearOfBuild[], string>({
      query: (id) => `engines/${id}/wear`,
      providesTags: (_result, _error, id) => [{ type: 'Engine', id }],
    }),
  }),
});

export const { useWearOfEngineQuery } = wearApi;
