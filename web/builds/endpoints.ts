import { original } from '@reduxjs/toolkit';
import type {
  AbandonRequest,
  BuildChange,
  BuildHead,
  BuildRoom,
  BuildWrite,
  NewBuild,
  LargerJob,
  NewerRevision,
  SetColdRequest,
} from '@zero-lash/contract/builds';
import type { SheetRevision } from '@zero-lash/contract/sheets';
import type { StageKey } from '@zero-lash/core/builds';
import { api, write } from '../app/api.ts';
import { cacheAnswer } from '../app/answerCache.ts';
import type { AppDispatch, RootState } from '../app/store.ts';
import { LATE_MS, sequenceOf, type AsOf } from './updateSequence.ts';
import { applyRow, roomNames, roomOf } from './rooms.ts';

type OfBuild<Body> = Body & { readonly buildId: string };

/** One room of one build. */
export interface RoomOf {
  readonly buildId: string;
  readonly room: BuildRoom;
}

const pathOf = ({ buildId, room }: RoomOf) => `builds/${buildId}${room === 'head' ? '' : `/${room}`}`;

/** An immutable revision is fetched once. */
const FOR_EVER_SECONDS = 30 * 24 * 3600;

/** A write in a build that needs the server; its answer is applied like every update of the build. */
export function buildWriteEndpoint<Arg extends object>(request: (arg: Arg) => ReturnType<typeof write>) {
  return {
    query: request,
    async onQueryStarted(
      _arg: Arg,
      {
        dispatch,
        getState,
        queryFulfilled,
      }: {
        dispatch: AppDispatch;
        getState: () => unknown;
        queryFulfilled: Promise<{ data: BuildWrite }>;
      },
    ) {
      try {
        const { data } = await queryFulfilled;
        await applyUpdate(dispatch, getState as () => RootState, data);
      } catch {
        // the page shows the refusal where it arose
      }
    },
  };
}

export const buildsApi = api.injectEndpoints({
  endpoints: (build) => ({
    buildRoom: build.query<AsOf<BuildRoom>, RoomOf>({
      query: pathOf,
      transformResponse: (read: AsOf<BuildRoom>, _meta, { buildId, room }) =>
        sequenceOf(buildId).over(room, read),
      providesTags: (_result, _error, { buildId, room }) => [
        { type: 'Build', id: buildId },
        { type: 'Build', id: `${buildId}/${room}` },
      ],
    }),
    revision: build.query<SheetRevision, string>({
      query: (id) => `sheet-revisions/${id}`,
      keepUnusedDataFor: FOR_EVER_SECONDS,
    }),
    openBuild: build.mutation<BuildWrite, NewBuild & { engineId: string }>({
      query: ({ engineId, ...body }) => write('POST', `engines/${engineId}/builds`, body),
      invalidatesTags: ['Today', 'Engines', 'Engine'],
    }),
    changeBuild: build.mutation<BuildWrite, OfBuild<BuildChange>>(
      buildWriteEndpoint(({ buildId, ...body }) => write('PATCH', `builds/${buildId}`, body)),
    ),
    goToRevision: build.mutation<BuildWrite, OfBuild<NewerRevision>>(
      buildWriteEndpoint(({ buildId, ...body }) => write('POST', `builds/${buildId}/revision`, body)),
    ),
    setCold: build.mutation<BuildWrite, OfBuild<SetColdRequest>>(
      buildWriteEndpoint(({ buildId, ...body }) => write('POST', `builds/${buildId}/set-cold`, body)),
    ),
    enlargeJob: build.mutation<BuildWrite, OfBuild<LargerJob>>(
      buildWriteEndpoint(({ buildId, ...body }) => write('POST', `builds/${buildId}/job`, body)),
    ),
    moveStage: build.mutation<BuildWrite, OfBuild<{ to: StageKey; version: number }>>(
      buildWriteEndpoint(({ buildId, ...body }) => write('POST', `builds/${buildId}/stage`, body)),
    ),
    abandonBuild: build.mutation<BuildWrite, OfBuild<AbandonRequest>>(
      buildWriteEndpoint(({ buildId, ...body }) => write('POST', `builds/${buildId}/abandon`, body)),
    ),
    restoreBuild: build.mutation<BuildWrite, OfBuild<{ version: number }>>(
      buildWriteEndpoint(({ buildId, ...body }) => write('POST', `builds/${buildId}/restore`, body)),
    ),
  }),
});

/** Has a build asked for again, whole or one room of it. */
export const readAgain = (buildId: string, room?: BuildRoom) =>
  buildsApi.util.invalidateTags([{ type: 'Build', id: room ? `${buildId}/${room}` : buildId }]);

/** Has those rooms of a build asked for again that were read before it was as far as it is said to be. */
export function readBehind(
  dispatch: AppDispatch,
  state: RootState,
  { build, seq }: Pick<BuildWrite, 'build' | 'seq'>,
): void {
  for (const room of roomNames()) {
    const { data } = buildsApi.endpoints.buildRoom.select({ buildId: build, room })(state);
    if (data && data.seq < seq) dispatch(readAgain(build, room));
  }
}

/**
 * Applies what a write in a build brought, as its answer or as an update: its rows to what is shown, which is cached so that the page
 * opens with it. Where an update was skipped and does not come, the build is asked for again.
 */
export async function applyUpdate(
  dispatch: AppDispatch,
  getState: () => RootState,
  update: Pick<BuildWrite, 'build' | 'seq' | 'changes'>,
): Promise<void> {
  const sequence = sequenceOf(update.build);
  const { changes, gap } = sequence.take(update);
  const touched = new Set<BuildRoom>();
  for (const change of changes) {
    const room = roomOf(change.kind);
    if (change.row === null) dispatch(readAgain(update.build, room));
    else touched.add(room);
  }
  for (const room of touched)
    dispatch(
      buildsApi.util.updateQueryData('buildRoom', { buildId: update.build, room }, (draft) => {
        const shown = original(draft) as AsOf<BuildRoom>;
        const rows = changes.reduce(
          (applied, change) => (roomOf(change.kind) === room ? applyRow(applied, change) : applied),
          shown.rows,
        );
        return { ...shown, rows };
      }),
    );
  const head = changes.find(({ kind }) => kind === 'head')?.row as BuildHead | undefined;
  if (head)
    dispatch(buildsApi.util.invalidateTags(['Today', 'Engines', { type: 'Engine', id: head.engine.id }]));
  if (gap)
    setTimeout(() => {
      if (sequence.giveUpWaiting()) dispatch(readAgain(update.build));
    }, LATE_MS);
  await Promise.all(
    [...touched].map((room) => {
      const arg = { buildId: update.build, room };
      const { data } = buildsApi.endpoints.buildRoom.select(arg)(getState());
      return data && cacheAnswer(pathOf(arg), data);
    }),
  );
}

export const {
  useBuildRoomQuery,
  useRevisionQuery,
  useOpenBuildMutation,
  useChangeBuildMutation,
  useSetColdMutation,
  useEnlargeJobMutation,
  useGoToRevisionMutation,
  useMoveStageMutation,
  useAbandonBuildMutation,
  useRestoreBuildMutation,
} = buildsApi;
