import { BUILD_ROOMS, type BuildParts } from '@zero-lash/contract/builds';
import { engineView } from '@zero-lash/contract/engines';
import { tools } from '@zero-lash/contract/instruments';
import { sheetRevision } from '@zero-lash/contract/sheets';
import type { Knex } from 'knex';
import { z } from 'zod';
import { buildRooms, type RoomDefinitions } from '../builds/registry.ts';
import { readHead } from '../builds/read.ts';
import { viewEngine } from '../engines/read.ts';
import { readTools } from '../instruments/store.ts';
import { Refusal } from '../plugins/errors.ts';
import { findSheet } from '../sheets/read.ts';
import { badRecord } from './unpack.ts';

/** What a record brought, by its ids here. */
interface Brought {
  readonly engine: string;
  readonly instruments: readonly string[];
  readonly sheets: readonly string[];
  readonly builds: readonly string[];
}

/**
 * Reads everything that a record brought as its pages will read it, and holds it to what they are told: what cannot be shown is
 * not taken in, whatever it was that nobody thought of.
 *
 * @throws Refusal `bad_record` that says what cannot be shown, and where
 */
export async function readBack(db: Knex, { engine, instruments, sheets, builds }: Brought): Promise<void> {
  await shows('the engine', engineView, () => viewEngine(db, engine));
  const here = new Set(instruments);
  await shows('its instruments', tools.shape.instruments, async () =>
    (await readTools(db)).instruments.filter(({ id }) => here.has(id)),
  );
  for (const sheet of sheets) await shows('its sheet', z.array(sheetRevision), () => findSheet(db, sheet));
  for (const [index, build] of builds.entries()) {
    const what = (room: string) => `build ${index + 1}, ${room}`;
    await shows(what('head'), BUILD_ROOMS.head.shape.rows, async () => (await readHead(db, build)).rows);
    for (const [room, { read }] of Object.entries(buildRooms()) as [
      keyof BuildParts,
      RoomDefinitions[keyof BuildParts],
    ][])
      await shows(what(room), BUILD_ROOMS[room].shape.rows, () => read(db, build));
  }
}

async function shows(what: string, schema: z.ZodType, read: () => Promise<unknown>): Promise<void> {
  let answer: unknown;
  try {
    answer = JSON.parse(JSON.stringify(await read()));
  } catch (error) {
    // what the database says of itself is no fault of the file's
    if (error instanceof Refusal || (error as { code?: string }).code !== undefined) throw error;
    throw badRecord(`Of ${what} not all can be read: ${(error as Error).message.slice(0, 200)}.`);
  }
  const held = schema.safeParse(answer);
  if (held.success) return;
  const [issue] = held.error.issues;
  throw badRecord(`Of ${what} not all can be shown: ${[...issue!.path, issue!.message].join(' ')}.`);
}
