import type {
  EngineChange,
  EngineList,
  EngineRow,
  EngineSearch,
  EngineView,
  GapRow,
  NewEngine,
  NewEnginePlan,
  NewLastCheck,
  NewUsage,
  PieceThere,
  PutAwayRequest,
  UsageStruckOut,
} from '@zero-lash/contract/engines';
import type { BuildWrite } from '@zero-lash/contract/builds';
import type { RanOfBuild } from '@zero-lash/contract/ran';
import type { RecordTaken } from '@zero-lash/contract/records';
import { api, write } from '../app/api.ts';

/** Rows of a long list that are asked for at a time. */
const AT_ONCE = 200;

export const enginesApi = api.injectEndpoints({
  endpoints: (build) => ({
    engines: build.query<EngineList, EngineSearch>({
      query: (params) => ({ url: 'engines', params }),
      providesTags: ['Engines'],
    }),
    /** Every engine, or those that are looked for, as far down the list as somebody has come. */
    enginesDown: build.infiniteQuery<EngineList, string, number>({
      infiniteQueryOptions: {
        initialPageParam: 0,
        getNextPageParam: ({ engines, total }, _pages, from) =>
          engines.length > 0 && from + engines.length < total ? from + engines.length : undefined,
      },
      query: ({ queryArg: search, pageParam: offset }) => ({
        url: 'engines',
        // its beginning is asked for as any list is, which the device keeps for when there is no network
        params: { search, limit: AT_ONCE, ...(offset > 0 ? { offset } : {}) },
      }),
      providesTags: ['Engines'],
    }),
    engine: build.query<EngineView, string>({
      query: (id) => `engines/${id}`,
      providesTags: (_result, _error, id) => [{ type: 'Engine', id }],
    }),
    enginePieces: build.query<PieceThere[], string>({
      query: (id) => `engines/${id}/pieces`,
      providesTags: (_result, _error, id) => [{ type: 'Engine', id }],
    }),
    lastGaps: build.query<GapRow[], string>({
      query: (id) => `engines/${id}/last-gaps`,
      providesTags: (_result, _error, id) => [{ type: 'Engine', id }],
    }),
    engineRan: build.query<RanOfBuild[], string>({
      query: (id) => `engines/${id}/ran`,
      providesTags: (_result, _error, id) => [{ type: 'Engine', id }],
    }),
    addEngine: build.mutation<EngineRow, NewEngine>({
      query: (body) => write('POST', 'engines', body),
      invalidatesTags: ['Engines'],
    }),
    previewRecord: build.mutation<RecordTaken, { file: string }>({
      query: (body) => write('POST', 'records/preview', body),
    }),
    takeRecord: build.mutation<RecordTaken, { file: string }>({
      query: (body) => write('POST', 'records', body),
      invalidatesTags: ['Engines', 'Today', 'Sheet', 'People', 'Tools'],
    }),
    changeEngine: build.mutation<EngineRow, EngineChange & { id: string }>({
      query: ({ id, ...body }) => write('PATCH', `engines/${id}`, body),
      invalidatesTags: (result, _error, { id }) =>
        result ? ['Engines', 'Today', 'Build', { type: 'Engine', id }] : [],
    }),
    giveEnginePlan: build.mutation<EngineView, NewEnginePlan & { id: string }>({
      query: ({ id, ...body }) => write('PUT', `engines/${id}/plan`, body),
      // where somebody was there before, what they gave it is shown beside what was refused
      invalidatesTags: (_result, _error, { id }) => [
        ...(['Engines', 'Today', 'Build', 'Rechecks'] as const),
        { type: 'Engine', id },
      ],
    }),
    sayLastCheck: build.mutation<BuildWrite, NewLastCheck & { id: string }>({
      query: ({ id, ...body }) => write('POST', `engines/${id}/last-check`, body),
      invalidatesTags: (result, _error, { id }) =>
        result ? ['Engines', 'Today', 'Build', 'Rechecks', { type: 'Engine', id }] : [],
    }),
    logUsage: build.mutation<EngineRow, NewUsage & { id: string }>({
      query: ({ id, ...body }) => write('POST', `engines/${id}/usages`, body),
      invalidatesTags: (result, _error, { id }) =>
        result ? ['Engines', 'Today', 'Build', { type: 'Engine', id }] : [],
    }),
    strikeUsage: build.mutation<UsageStruckOut, { id: string; usage: string; why: string }>({
      query: ({ id, usage, why }) => write('POST', `engines/${id}/usages/${usage}/struck-out`, { why }),
      invalidatesTags: (_result, _error, { id }) => [
        ...(['Engines', 'Today', 'Build', 'Rechecks'] as const),
        { type: 'Engine', id },
      ],
    }),
    putAway: build.mutation<EngineRow, PutAwayRequest & { id: string }>({
      query: ({ id, ...body }) => write('POST', `engines/${id}/put-away`, body),
      invalidatesTags: (_result, _error, { id }) => ['Engines', 'Today', { type: 'Engine', id }],
    }),
    bringBack: build.mutation<EngineRow, { id: string; version: number }>({
      query: ({ id, ...body }) => write('POST', `engines/${id}/bring-back`, body),
      invalidatesTags: (_result, _error, { id }) => ['Engines', 'Today', { type: 'Engine', id }],
    }),
  }),
});

export const {
  useEnginesQuery,
  useEnginesDownInfiniteQuery,
  useLazyEnginesQuery,
  useEngineQuery,
  useEnginePiecesQuery,
  useLastGapsQuery,
  useEngineRanQuery,
  useAddEngineMutation,
  usePreviewRecordMutation,
  useTakeRecordMutation,
  useChangeEngineMutation,
  useGiveEnginePlanMutation,
  useSayLastCheckMutation,
  useLogUsageMutation,
  useStrikeUsageMutation,
  usePutAwayMutation,
  useBringBackMutation,
} = enginesApi;
