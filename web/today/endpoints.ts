import type { Today } from '@zero-lash/contract/today';
import { api } from '../app/api.ts';

export const todayApi = api.injectEndpoints({
  endpoints: (build) => ({
    today: build.query<Today, void>({ query: () => 'today', providesTags: ['Today'] }),
  }),
});

export const { useTodayQuery } = todayApi;
