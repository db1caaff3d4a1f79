import type { KnowHowChange, KnowHowRow } from '@zero-lash/contract/knowHow';
import { api, write } from '../app/api.ts';

const knowHowApi = api.injectEndpoints({
  endpoints: (build) => ({
    changeKnowHow: build.mutation<KnowHowRow, KnowHowChange & { id: string; buildId: string }>({
      query: ({ id, buildId: _, ...body }) => write('PATCH', `know-how/${id}`, body),
      invalidatesTags: (_result, _error, { buildId }) => [{ type: 'Build', id: `${buildId}/know-how` }],
    }),
  }),
});

export const { useChangeKnowHowMutation } = knowHowApi;
