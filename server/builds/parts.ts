import type { BuildParts } from '@zero-lash/contract/builds';
import type { Knex } from 'knex';
import { readRounds } from '../measuring/rounds.ts';
import { readRechecks } from '../rechecks/read.ts';
import { readKnowHow } from '../knowHow/read.ts';
import { readPhotographs } from '../photographs/read.ts';
import { readSettings } from '../setting/read.ts';
import { readEntries } from './entries.ts';
import { readNotes, readTicks } from './read.ts';

/** How each room of a build is read. */
export const PARTS: {
  readonly [Part in keyof BuildParts]: (db: Knex, build: string) => Promise<BuildParts[Part]>;
} = {
  rounds: readRounds,
  settings: (db, build) => readSettings(db, build),
  ticks: readTicks,
  notes: (db, build) => readNotes(db, build),
  rechecks: (db, build) => readRechecks(db, { build_id: build }),
  wear: (db, build) => readEntries(db, build, 'wear'),
  headwork: (db, build) => readEntries(db, build, 'headwork'),
  ledger: (db, build) => readEntries(db, build, 'ledger'),
  ran: (db, build) => readEntries(db, build, 'ran'),
  photographs: (db, build) => readPhotographs(db, build),
  'know-how': (db, build) => readKnowHow(db, { build }),
};
