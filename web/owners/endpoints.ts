import type { Owner, OwnerChange } from '@zero-lash/contract/owners';
import { api, write } from '../app/api.ts';

const ownersApi = api.injectEndpoints({
  endpoints: (build) => ({
    owners: build.query<Owner[], void>({ query: () => 'owners', providesTags: ['Owners'] }),
    changeOwner: build.mutation<Owner, OwnerChange & { id: string }>({
      query: ({ id, ...body }) => write('PATCH', `owners/${id}`, body),
      invalidatesTags: ['Owners', 'Engines', 'Engine', 'Rechecks', 'Today', 'Mailbox'],
    }),
  }),
});

export const { useOwnersQuery, useChangeOwnerMutation } = ownersApi;
