import type { BuildWrite } from '@zero-lash/contract/builds';
import type { MovedReadings, OtherRound, PastReading } from '@zero-lash/contract/measuring';
import { api, write } from '../app/api.ts';
import { buildWriteEndpoint } from '../builds/endpoints.ts';

const measuringApi = api.injectEndpoints({
  endpoints: (build) => ({
    /** `newest` is what is known to stand there: the history is asked for again when it changes */
    history: build.query<PastReading[], { roundId: string; point: string; newest: string }>({
      query: ({ roundId, point }) => `rounds/${roundId}/points/${encodeURIComponent(point)}`,
    }),
    /** rounds of other engines in which the same is measured now */
    otherRounds: build.query<OtherRound[], string>({ query: (roundId) => `rounds/${roundId}/others` }),
    moveReadings: build.mutation<BuildWrite, MovedReadings & { roundId: string; buildId: string }>(
      buildWriteEndpoint(({ roundId, buildId: _, ...body }) =>
        write('POST', `rounds/${roundId}/moved`, body),
      ),
    ),
  }),
});

export const { useHistoryQuery, useOtherRoundsQuery, useMoveReadingsMutation } = measuringApi;
