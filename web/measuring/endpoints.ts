import type { PastReading } from '@zero-lash/contract/measuring';
import { api } from '../app/api.ts';

const measuringApi = api.injectEndpoints({
  endpoints: (build) => ({
    /** `newest` is what is known to stand there: the history is asked for again when it changes */
    history: build.query<PastReading[], { roundId: string; point: string; newest: string }>({
      query: ({ roundId, point }) => `rounds/${roundId}/points/${encodeURIComponent(point)}`,
    }),
  }),
});

export const { useHistoryQuery } = measuringApi;
