import { skipToken } from '@reduxjs/toolkit/query/react';
import type { BuildRoom, RowsOf } from '@zero-lash/contract/builds';
import { useMemo } from 'react';
import { judgedAnew } from '@zero-lash/core/builds';
import { limitsToGoBy } from '@zero-lash/core/setting';
import { hollowAt, wearSheetOf } from '@zero-lash/core/wear';
import type { BuildView, SheetGoneBy } from './buildView.ts';
import { useBuildRoomQuery, useRevisionQuery } from './endpoints.ts';

const NO_POINTS: ReadonlySet<string> = new Set();

function useRoom<Room extends BuildRoom>(buildId: string, room: Room) {
  const { data, error, refetch } = useBuildRoomQuery({ buildId, room });
  return { rows: data?.rows as RowsOf<Room> | undefined, error, refetch };
}

/** A build with everything the bench sees of it; undefined until every room of it is here. */
export function useBuild(id: string) {
  const head = useRoom(id, 'head');
  const rounds = useRoom(id, 'rounds');
  const settings = useRoom(id, 'settings');
  const ticks = useRoom(id, 'ticks');
  const notes = useRoom(id, 'notes');
  const rechecks = useRoom(id, 'rechecks');
  const wear = useRoom(id, 'wear');
  const headwork = useRoom(id, 'headwork');
  const ledger = useRoom(id, 'ledger');
  const ran = useRoom(id, 'ran');
  const photographs = useRoom(id, 'photographs');
  const knowHow = useRoom(id, 'know-how');
  const sheet = useRevisionQuery(head.rows?.revisionId ?? skipToken);
  const own = head.rows?.ownAims;
  const allowOver = head.rows?.allowOver;
  const aim = head.rows?.aim;
  const goneBy = useMemo((): SheetGoneBy | undefined => {
    if (!sheet.data || !aim) return undefined;
    const figures = own?.figures ?? [];
    const limits = limitsToGoBy(sheet.data.limits, { aim, own: figures, allowOver: allowOver ?? [] });
    return { ...sheet.data, limits: [...limits] };
  }, [sheet.data, aim, own, allowOver]);
  const hollow = useMemo(
    () =>
      wear.rows && goneBy ? hollowAt(wearSheetOf(wear.rows, goneBy.wearLimits), goneBy.pattern) : NO_POINTS,
    [wear.rows, goneBy],
  );
  const judged = useMemo(
    () =>
      goneBy &&
      rounds.rows && [...judgedAnew(rounds.rows, goneBy.pattern, { limits: goneBy.limits, hollow })],
    [rounds.rows, goneBy, hollow],
  );
  const rooms = [
    ...[head, rounds, settings, ticks, notes, rechecks],
    ...[wear, headwork, ledger, ran, photographs, knowHow],
  ];
  const build = useMemo((): BuildView | undefined => {
    if (!head.rows || !rounds.rows || !settings.rows || !ticks.rows || !notes.rows || !rechecks.rows)
      return undefined;
    if (!wear.rows || !headwork.rows || !ledger.rows || !photographs.rows || !knowHow.rows) return undefined;
    if (!ran.rows) return undefined;
    if (!goneBy || !judged) return undefined;
    return {
      ...head.rows,
      sheet: goneBy,
      rounds: judged,
      settings: settings.rows,
      ticks: ticks.rows,
      notes: notes.rows,
      rechecks: rechecks.rows,
      wear: wear.rows,
      headwork: headwork.rows,
      ledger: ledger.rows,
      ran: ran.rows,
      photographs: photographs.rows,
      'know-how': knowHow.rows,
    };
  }, [
    head.rows,
    judged,
    settings.rows,
    ticks.rows,
    notes.rows,
    rechecks.rows,
    wear.rows,
    headwork.rows,
    ledger.rows,
    ran.rows,
    photographs.rows,
    knowHow.rows,
    goneBy,
  ]);
  return {
    build,
    error: build ? undefined : (rooms.find(({ error }) => error)?.error ?? sheet.error),
    refetch: () => {
      for (const { refetch } of rooms) void refetch();
      if (!sheet.isUninitialized) void sheet.refetch();
    },
  };
}
