import { rowsById, type RoomDefinition } from '../builds/registry.ts';
import { readSettings } from './read.ts';

const { read, kind } = rowsById(readSettings);

/** How each point of a build is set. */
export const settings: RoomDefinition<'settings'> = { read, kinds: { setting: kind } };
