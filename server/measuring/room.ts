import { byId, type RoomDefinition } from '../builds/registry.ts';
import { readConditions, readReadings, readRoundRows, readRounds, readTurning } from './rounds.ts';

/** The rounds of a build, with what was taken and said in them. */
export const rounds: RoomDefinition<'rounds'> = {
  read: readRounds,
  kinds: {
    round: { idOf: byId, again: async (db, build, id) => (await readRoundRows(db, build, id))[0] },
    reading: {
      idOf: byId,
      again: async (db, _build, id) => (await readReadings(db, (query) => query.where('g.id', id), 'all'))[0],
    },
    conditions: { idOf: byId, again: async (db, build, id) => (await readConditions(db, build, id))[0] },
    turning: { idOf: ({ roundId }) => roundId, again: (db, _build, id) => readTurning(db, id) },
  },
};
