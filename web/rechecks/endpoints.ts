import type { BuildWrite } from '@zero-lash/contract/builds';
import type { CalendarFeed, NewCalendarFeed } from '@zero-lash/contract/calendar';
import type { Mailbox } from '@zero-lash/contract/reminders';
import type {
  BenchDay,
  EngineTrend,
  RecheckFilters,
  RecheckList,
  RecheckMove,
  RecheckSearch,
} from '@zero-lash/contract/rechecks';
import { api, write } from '../app/api.ts';
import { buildWriteEndpoint } from '../builds/endpoints.ts';

export const rechecksApi = api.injectEndpoints({
  endpoints: (build) => ({
    closeRecheck: build.mutation<BuildWrite, { recheckId: string }>(
      buildWriteEndpoint(({ recheckId }) => write('POST', `rechecks/${recheckId}/outcome`)),
    ),
    leaveLate: build.mutation<BuildWrite, { recheckId: string; why: string; version: number }>(
      buildWriteEndpoint(({ recheckId, ...body }) => write('POST', `rechecks/${recheckId}/late-left`, body)),
    ),
    rechecks: build.query<RecheckList, RecheckSearch>({
      query: (params) => ({ url: 'rechecks', params }),
      providesTags: ['Rechecks'],
    }),
    recheckFilters: build.query<RecheckFilters, void>({
      query: () => 'rechecks/filters',
      providesTags: ['Rechecks'],
    }),
    moveRecheck: build.mutation<BuildWrite, RecheckMove & { recheckId: string }>({
      query: ({ recheckId, ...body }) => write('POST', `rechecks/${recheckId}/move`, body),
      invalidatesTags: ['Rechecks', 'Today', 'Engines', 'Engine', 'Build'],
    }),
    planBenchDay: build.mutation<BuildWrite, BenchDay & { recheckId: string }>({
      query: ({ recheckId, ...body }) => write('POST', `rechecks/${recheckId}/bench-day`, body),
      invalidatesTags: ['Rechecks', 'Today', 'Engine', 'Build'],
    }),
    engineTrend: build.query<EngineTrend | null, string>({
      query: (id) => `engines/${id}/trend`,
      providesTags: (_result, _error, id) => [{ type: 'Engine', id }],
    }),
    calendarFeeds: build.query<CalendarFeed[], void>({
      query: () => 'calendar-feeds',
      providesTags: ['Feeds'],
    }),
    addCalendarFeed: build.mutation<NewCalendarFeed, void>({
      query: () => write('POST', 'calendar-feeds'),
      invalidatesTags: ['Feeds'],
    }),
    withdrawCalendarFeed: build.mutation<CalendarFeed[], string>({
      query: (id) => write('DELETE', `calendar-feeds/${id}`),
      invalidatesTags: ['Feeds'],
    }),
    mailbox: build.query<Mailbox, void>({ query: () => 'reminders', providesTags: ['Mailbox'] }),
    remindNow: build.mutation<Mailbox, void>({
      query: () => write('POST', 'reminders/now'),
      invalidatesTags: ['Mailbox'],
    }),
  }),
});

export const {
  useCloseRecheckMutation,
  useLeaveLateMutation,
  useRechecksQuery,
  useRecheckFiltersQuery,
  useMoveRecheckMutation,
  usePlanBenchDayMutation,
  useEngineTrendQuery,
  useCalendarFeedsQuery,
  useAddCalendarFeedMutation,
  useWithdrawCalendarFeedMutation,
  useMailboxQuery,
  useRemindNowMutation,
} = rechecksApi;
