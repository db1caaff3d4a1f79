import { type RowsOfRoom, type WriteOfRoom } from '../builds/rooms.ts';

declare module '../builds/rooms.ts' {
  interface BenchWrites {
    /** a recheck's round is begun */
    round: { readonly recheckId: string; readonly sequence: number };
  }
}

export const recheckRows: RowsOfRoom<'rechecks'> = {
  recheck: (rechecks, row) =>
    [...rechecks.filter(({ id }) => id !== row.id), row].sort((a, b) => b.sequence - a.sequence),
};

export const roundWrite: WriteOfRoom<'round', 'round'> = {
  brings: 'round',
  send: (_buildId, { recheckId, sequence }) => ({
    ...{ method: 'POST', path: `rechecks/${recheckId}/round`, within: recheckId },
    ...{ about: `recheck ${sequence}`, said: `The beginning of recheck ${sequence}`, body: { sequence } },
  }),
  pending: (item, build) => {
    // one that is there already is the server's own
    if (build.rounds.some(({ recheckId }) => recheckId === item.within)) return null;
    return {
      // a recheck's round has the recheck's own id, whoever opens it
      ...{ id: item.within!, recheckId: item.within!, kind: 'recheck', closedAt: null, carried: false },
      ...{ number: (item.body as { sequence: number }).sequence, openedAt: item.takenAt, openedBy: item.by },
    };
  },
};
