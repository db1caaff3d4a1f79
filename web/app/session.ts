import type { Session, SignIn } from '@zero-lash/contract/people';
import { api, write } from './api.ts';
import { cacheAnswer } from './answerCache.ts';

/** Who is signed in on this device: what everything else on it asks. */
export const sessionApi = api.injectEndpoints({
  endpoints: (build) => ({
    session: build.query<Session, void>({ query: () => 'session', providesTags: ['Session'] }),
    signIn: build.mutation<Session, SignIn>({
      query: (body) => ({ url: 'session', method: 'POST', body }),
      async onQueryStarted(_arg, { dispatch, queryFulfilled }) {
        try {
          const { data } = await queryFulfilled;
          // who came in a moment ago finds the pages again too, where the network goes before they are opened again
          void cacheAnswer('session', data);
          await dispatch(sessionApi.util.upsertQueryData('session', undefined, data));
        } catch {
          // the page shows the refusal
        }
      },
    }),
    signOut: build.mutation<void, void>({
      query: () => write('DELETE', 'session'),
    }),
  }),
});

export const { useSessionQuery, useSignInMutation, useSignOutMutation } = sessionApi;
