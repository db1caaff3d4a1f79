import { readNotes, readTicks } from '../builds/read.ts';
import { rowsById, type RoomDefinition } from '../builds/registry.ts';

const ofNotes = rowsById(readNotes);

/** What is ticked at the stages of a build. */
export const ticks: RoomDefinition<'ticks'> = {
  read: readTicks,
  kinds: {
    tick: {
      idOf: ({ stage, check }) => `${stage}:${check}`,
      again: async (db, build, id) =>
        (await readTicks(db, build)).find(({ stage, check }) => `${stage}:${check}` === id),
    },
  },
};
/** What is noted at them. */
export const notes: RoomDefinition<'notes'> = { read: ofNotes.read, kinds: { note: ofNotes.kind } };
