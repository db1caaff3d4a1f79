import type {
  NewPerson,
  OwnPassphrase,
  Person,
  PersonChange,
  PersonChanged,
  ProposedAddress,
  Shop,
  ShopChange,
} from '@zero-lash/contract/people';
import { api, write } from '../app/api.ts';

export const peopleApi = api.injectEndpoints({
  endpoints: (build) => ({
    signOutEverywhere: build.mutation<void, void>({
      query: () => write('DELETE', 'session/everywhere'),
    }),
    changeOwnPassphrase: build.mutation<void, OwnPassphrase>({
      query: (body) => write('PATCH', 'session/passphrase', body),
      invalidatesTags: ['People'],
    }),
    signPersonOut: build.mutation<void, string>({
      query: (id) => write('DELETE', `people/${id}/sessions`),
      invalidatesTags: ['Session'],
    }),
    proposedAddress: build.query<ProposedAddress, void>({ query: () => 'shop/address' }),
    peopleChanges: build.query<PersonChanged[], void>({
      query: () => 'people/changes',
      providesTags: ['People'],
    }),
    people: build.query<Person[], void>({ query: () => 'people', providesTags: ['People'] }),
    addPerson: build.mutation<Person, NewPerson>({
      query: (body) => write('POST', 'people', body),
      invalidatesTags: ['People'],
    }),
    changePerson: build.mutation<Person, PersonChange & { id: string }>({
      query: ({ id, ...body }) => write('PATCH', `people/${id}`, body),
      invalidatesTags: ['People', 'Session'],
    }),
    changeShop: build.mutation<Shop, ShopChange>({
      query: (body) => write('PATCH', 'shop', body),
      invalidatesTags: ['Session', 'Today', 'Engines', 'Tools', 'Gauges'],
    }),
  }),
});

export const {
  useSignOutEverywhereMutation,
  useSignPersonOutMutation,
  useChangeOwnPassphraseMutation,
  usePeopleChangesQuery,
  useProposedAddressQuery,
  usePeopleQuery,
  useAddPersonMutation,
  useChangePersonMutation,
  useChangeShopMutation,
} = peopleApi;
