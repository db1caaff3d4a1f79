import type { Morning } from '@zero-lash/contract/morning';
import type { Today } from '@zero-lash/contract/today';
import { api, write } from '../app/api.ts';

export const todayApi = api.injectEndpoints({
  endpoints: (build) => ({
    today: build.query<Today, void>({ query: () => 'today', providesTags: ['Today'] }),
    morning: build.query<Morning, void>({ query: () => 'morning', providesTags: ['Today'] }),
    markLooked: build.mutation<Morning, void>({
      query: () => write('POST', 'morning/looked'),
      invalidatesTags: ['Today'],
    }),
  }),
});

export const { useTodayQuery, useMorningQuery, useMarkLookedMutation } = todayApi;
