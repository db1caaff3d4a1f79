import { rowsById, type RoomDefinition } from '../builds/registry.ts';
import { readPhotographs } from './read.ts';

const { read, kind } = rowsById(readPhotographs);

/** What was photographed at a build. */
export const photographs: RoomDefinition<'photographs'> = { read, kinds: { photograph: kind } };
