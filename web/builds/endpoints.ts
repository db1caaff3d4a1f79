import type { BuildChange, BuildView, NewBuild } from '@zero-lash/contract/builds';
import type { PastReading, ReadingRow, RoundConditions } from '@zero-lash/contract/measuring';
import type { NewSetting } from '@zero-lash/contract/setting';
import type { SignOffRequest } from '@zero-lash/contract/signoff';
import type { Turning } from '@zero-lash/contract/turning';
import type { StageKey } from '@zero-lash/core/builds';
import { api, write } from '../app/api.ts';

type OfBuild<Body> = Body & { readonly buildId: string };
type OfRound<Body> = OfBuild<Body> & { readonly roundId: string };

/**
 * Lays readings that came live meanwhile over a build fetched before they were written: readings are never taken away,
 * so of a point's two rows the one taken later stands.
 */
export function withNewestReadings(known: BuildView, fetched: BuildView): BuildView {
  const rounds = fetched.rounds.map((round) => {
    const here = known.rounds.find(({ id }) => id === round.id)?.readings ?? [];
    const newer = here.filter((row) => {
      const other = round.readings.find(({ point }) => point === row.point);
      return !other || isLater(row, other);
    });
    if (newer.length === 0) return round;
    const taken = new Set(newer.map(({ point }) => point));
    return { ...round, readings: [...round.readings.filter(({ point }) => !taken.has(point)), ...newer] };
  });
  return { ...fetched, rounds };
}

/** Whether one reading stands in the place of another: it was taken later, or as late and written after it. */
const isLater = (row: ReadingRow, other: ReadingRow) =>
  (Date.parse(row.takenAt) - Date.parse(other.takenAt) || row.earlier - other.earlier) > 0;

/** When each build was last asked for, and when a write to it was last answered; ms. */
const askedAt = new Map<string, number>();
const writtenAt = new Map<string, number>();

/** Whether a build that was asked for before a write was answered comes after it: then it may not know of the write. */
const isOutrun = (id: string) => (writtenAt.get(id) ?? 0) > (askedAt.get(id) ?? 0);

export const buildsApi = api.injectEndpoints({
  endpoints: (build) => {
    /** A write that answers with the whole build: what is shown is what the server has. */
    const change = <Arg extends OfBuild<object>>(request: (arg: Arg) => ReturnType<typeof write>) =>
      build.mutation<BuildView, Arg>({
        query: request,
        invalidatesTags: (result) =>
          result ? ['Today', 'Engines', { type: 'Engine', id: result.engine.id }] : [],
        async onQueryStarted({ buildId }, { dispatch, getState, queryFulfilled }) {
          try {
            const { data } = await queryFulfilled;
            const { status } = buildsApi.endpoints.build.select(buildId)(getState() as never);
            writtenAt.set(buildId, performance.now());
            await dispatch(buildsApi.util.upsertQueryData('build', buildId, data));
            // what is on its way is older and will not be shown: it is asked for again
            if (status === 'pending')
              dispatch(buildsApi.util.invalidateTags([{ type: 'Build', id: buildId }]));
          } catch {
            // the page shows the refusal where it arose
          }
        },
      });
    return {
      build: build.query<BuildView, string>({
        query: (id) => {
          askedAt.set(id, performance.now());
          return `builds/${id}`;
        },
        // a write's own answer is laid in without a request
        merge: (known, fetched, { arg, baseQueryMeta }) =>
          baseQueryMeta && isOutrun(arg) ? known : withNewestReadings(known, fetched),
        providesTags: (_result, _error, id) => [{ type: 'Build', id }],
      }),
      openBuild: build.mutation<BuildView, NewBuild & { engineId: string }>({
        query: ({ engineId, ...body }) => write('POST', `engines/${engineId}/builds`, body),
        invalidatesTags: ['Today', 'Engines', 'Engine'],
      }),
      changeBuild: change<OfBuild<BuildChange>>(({ buildId, ...body }) =>
        write('PATCH', `builds/${buildId}`, body),
      ),
      moveStage: change<OfBuild<{ to: StageKey; version: number }>>(({ buildId, ...body }) =>
        write('POST', `builds/${buildId}/stage`, body),
      ),
      tick: change<OfBuild<{ stage: StageKey; check: string; done: boolean }>>(({ buildId, ...body }) =>
        write('POST', `builds/${buildId}/ticks`, body),
      ),
      addNote: change<OfBuild<{ stage: StageKey; text: string }>>(({ buildId, ...body }) =>
        write('POST', `builds/${buildId}/notes`, body),
      ),
      addSetting: change<OfBuild<NewSetting>>(({ buildId, ...body }) =>
        write('POST', `builds/${buildId}/settings`, body),
      ),
      signOff: change<OfBuild<SignOffRequest>>(({ buildId, ...body }) =>
        write('POST', `builds/${buildId}/sign-off`, body),
      ),
      setConditions: change<OfRound<RoundConditions>>(({ buildId: _, roundId, ...body }) =>
        write('PUT', `rounds/${roundId}/conditions`, body),
      ),
      setTurning: change<OfRound<Turning>>(({ buildId: _, roundId, ...body }) =>
        write('PUT', `rounds/${roundId}/turning`, body),
      ),
      openRecheck: change<OfBuild<{ recheckId: string }>>(({ recheckId }) =>
        write('POST', `rechecks/${recheckId}/round`),
      ),
      closeRecheck: change<OfBuild<{ recheckId: string }>>(({ recheckId }) =>
        write('POST', `rechecks/${recheckId}/outcome`),
      ),
      history: build.query<PastReading[], { roundId: string; point: string; newest: string }>({
        query: ({ roundId, point }) => `rounds/${roundId}/points/${encodeURIComponent(point)}`,
      }),
    };
  },
});

/**
 * Puts a reading the server has into what is shown of its build; it takes the place of what stood there before. One that
 * came in late stands nowhere, but its point has one more behind it: the build is fetched anew.
 */
export const readingArrived = (buildId: string, row: ReadingRow) =>
  row.superseded
    ? buildsApi.util.invalidateTags([{ type: 'Build', id: buildId }])
    : readingStands(buildId, row);

const readingStands = (buildId: string, row: ReadingRow) =>
  buildsApi.util.updateQueryData('build', buildId, (draft) => {
    const round = draft.rounds.find(({ id }) => id === row.roundId);
    // this device's own reading comes back live as well, and one taken earlier may come in later
    const standing = round?.readings.find(({ point }) => point === row.point);
    if (!round || standing?.id === row.id || (standing && !isLater(row, standing))) return;
    round.readings = [...round.readings.filter(({ point }) => point !== row.point), row];
  });

export const {
  useBuildQuery,
  useOpenBuildMutation,
  useChangeBuildMutation,
  useMoveStageMutation,
  useTickMutation,
  useAddNoteMutation,
  useAddSettingMutation,
  useSignOffMutation,
  useSetConditionsMutation,
  useSetTurningMutation,
  useOpenRecheckMutation,
  useCloseRecheckMutation,
  useHistoryQuery,
} = buildsApi;
