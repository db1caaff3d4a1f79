import { byId, type RoomDefinition } from '../builds/registry.ts';
import { readKnowHow } from './read.ts';

/** What the shop has learned of a build's pattern. */
export const knowHow: RoomDefinition<'know-how'> = {
  read: (db, build) => readKnowHow(db, { build }),
  kinds: {
    'know-how': { idOf: byId, again: async (db, _build, id) => (await readKnowHow(db, { id }))[0] },
  },
};
