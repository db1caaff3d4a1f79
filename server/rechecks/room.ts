import { byId, type RoomDefinition } from '../builds/registry.ts';
import { readRechecks } from './read.ts';

/** The rechecks of a build. */
export const rechecks: RoomDefinition<'rechecks'> = {
  read: (db, build) => readRechecks(db, { build_id: build }),
  kinds: { recheck: { idOf: byId, again: async (db, _build, id) => (await readRechecks(db, { id }))[0] } },
};
