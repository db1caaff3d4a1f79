import type {
  FeedTaken,
  MeterAnswer,
  MeterQuestion,
  UsageRound,
  UsageRoundTaken,
} from '@zero-lash/contract/usage';
import { api, write } from '../app/api.ts';

/** A figure off a meter, as the outbox calls it. */
export const METER_FIGURE = 'meter-figure';

interface Questions {
  readonly feed: boolean;
  readonly questions: readonly MeterQuestion[];
}

/** What a running figure of an engine bears on. */
export const USED = ['Engines', 'Engine', 'Today', 'Build', 'Rechecks', 'Usage'] as const;

const usageApi = api.injectEndpoints({
  endpoints: (build) => ({
    logRound: build.mutation<UsageRoundTaken, UsageRound>({
      query: (body) => write('POST', 'usage/round', body),
      invalidatesTags: [...USED],
    }),
    meterQuestions: build.query<Questions, void>({
      query: () => 'usage/questions',
      providesTags: ['Usage'],
    }),
    answerMeter: build.mutation<Questions, MeterAnswer & { id: string }>({
      query: ({ id, ...body }) => write('POST', `usage/questions/${id}`, body),
      invalidatesTags: [...USED],
    }),
    takeFeed: build.mutation<FeedTaken, void>({
      query: () => write('POST', 'usage/feed'),
      invalidatesTags: [...USED],
    }),
  }),
});

export const { useLogRoundMutation, useMeterQuestionsQuery, useAnswerMeterMutation, useTakeFeedMutation } =
  usageApi;
