import { skipToken } from '@reduxjs/toolkit/query/react';
import type { BuildHead, BuildParts, BuildRoom, RowsOf } from '@zero-lash/contract/builds';
import { useMemo } from 'react';
import { judgedAgain } from '@zero-lash/core/builds';
import { effectiveLimits } from '@zero-lash/core/setting';
import { hollowAt, wearSheetOf } from '@zero-lash/core/wear';
import { useSame } from '../app/useSame.ts';
import type { BuildView, EffectiveSheet } from './buildView.ts';
import { useBuildRoomQuery, useRevisionQuery } from './endpoints.ts';
import { roomNames } from './rooms.ts';

const NO_POINTS: ReadonlySet<string> = new Set();

/** Every room of a build as far as it is here. */
function useRooms(buildId: string) {
  const read = {} as {
    -readonly [Room in BuildRoom]: Pick<ReturnType<typeof useBuildRoomQuery>, 'error' | 'refetch'> & {
      readonly rows: RowsOf<Room> | undefined;
    };
  };
  for (const room of roomNames()) {
    // the rooms are the same at every render
    // eslint-disable-next-line react-hooks/rules-of-hooks
    const { data, error, refetch } = useBuildRoomQuery({ buildId, room });
    read[room] = { rows: data?.rows as never, error, refetch };
  }
  return read;
}

/** A build with everything the bench sees of it; undefined until every room of it is here. */
export function useBuild(id: string) {
  const read = useRooms(id);
  const { head, rounds, wear, settings } = read;
  const sheet = useRevisionQuery(head.rows?.revisionId ?? skipToken);
  const own = head.rows?.ownAims;
  const allowOver = head.rows?.allowOver;
  const singleRule = head.rows?.singleRule ?? null;
  const setCold = head.rows?.setCold ?? null;
  const coldHours = head.rows?.coldHours;
  const aim = head.rows?.aim;
  const effectiveSheet = useMemo((): EffectiveSheet | undefined => {
    if (!sheet.data || !aim || coldHours === undefined) return undefined;
    const figures = own?.figures ?? [];
    const limits = effectiveLimits(sheet.data.limits, {
      ...{ aim, own: figures, allowOver: allowOver ?? [], singleRule, setCold },
    });
    return { ...sheet.data, limits: [...limits], setCold, coldHours };
  }, [sheet.data, aim, own, allowOver, singleRule, setCold, coldHours]);
  const hollow = useMemo(
    () =>
      wear.rows && effectiveSheet
        ? hollowAt(wearSheetOf(wear.rows, effectiveSheet.wearLimits), effectiveSheet.pattern)
        : NO_POINTS,
    [wear.rows, effectiveSheet],
  );
  const judged = useMemo(
    () =>
      effectiveSheet &&
      rounds.rows &&
      settings.rows && [
        ...judgedAgain(rounds.rows, effectiveSheet.pattern, {
          ...{ limits: effectiveSheet.limits, hollow, settings: settings.rows },
        }),
      ],
    [rounds.rows, effectiveSheet, hollow, settings.rows],
  );
  const all = Object.values(read);
  const parts = useSame(Object.fromEntries(Object.entries(read).map(([room, { rows }]) => [room, rows])));
  const build = useMemo((): BuildView | undefined => {
    if (Object.values(parts).includes(undefined) || !effectiveSheet || !judged) return undefined;
    const { head: of, ...others } = parts as { head: BuildHead } & BuildParts;
    return { ...of, ...others, sheet: effectiveSheet, rounds: judged };
  }, [parts, effectiveSheet, judged]);
  return {
    build,
    error: build ? undefined : (all.find(({ error }) => error)?.error ?? sheet.error),
    refetch: () => {
      for (const { refetch } of all) void refetch();
      if (!sheet.isUninitialized) void sheet.refetch();
    },
  };
}
