import { skipToken } from '@reduxjs/toolkit/query/react';
import type { BuildRoom, RowsOf } from '@zero-lash/contract/builds';
import { useMemo } from 'react';
import type { BuildView } from './buildView.ts';
import { useBuildRoomQuery, useRevisionQuery } from './endpoints.ts';

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
  const photographs = useRoom(id, 'photographs');
  const knowHow = useRoom(id, 'know-how');
  const sheet = useRevisionQuery(head.rows?.revisionId ?? skipToken);
  const rooms = [
    ...[head, rounds, settings, ticks, notes, rechecks],
    ...[wear, headwork, ledger, photographs, knowHow],
  ];
  const build = useMemo((): BuildView | undefined => {
    if (!head.rows || !rounds.rows || !settings.rows || !ticks.rows || !notes.rows || !rechecks.rows)
      return undefined;
    if (!wear.rows || !headwork.rows || !ledger.rows || !photographs.rows || !knowHow.rows) return undefined;
    if (!sheet.data) return undefined;
    return {
      ...head.rows,
      sheet: sheet.data,
      rounds: rounds.rows,
      settings: settings.rows,
      ticks: ticks.rows,
      notes: notes.rows,
      rechecks: rechecks.rows,
      wear: wear.rows,
      headwork: headwork.rows,
      ledger: ledger.rows,
      photographs: photographs.rows,
      'know-how': knowHow.rows,
    };
  }, [
    head.rows,
    rounds.rows,
    settings.rows,
    ticks.rows,
    notes.rows,
    rechecks.rows,
    wear.rows,
    headwork.rows,
    ledger.rows,
    photographs.rows,
    knowHow.rows,
    sheet.data,
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
