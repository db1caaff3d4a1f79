import type { Knex } from 'knex';
import * as first from './100-schema.ts';
import * as printedLimits from './101-printedLimits.ts';
import * as miles from './102-miles.ts';
import * as positionPictures from './103-positionPictures.ts';
import * as origins from './104-origins.ts';
import * as patternParts from './105-patternParts.ts';
import * as noteWhere from './106-noteWhere.ts';
import * as limitsToCome from './107-limitsToCome.ts';
import * as noMeter from './108-noMeter.ts';
import * as sheetSystem from './109-sheetSystem.ts';
import * as jobs from './110-jobs.ts';
import * as notMeasured from './111-notMeasured.ts';
import * as lastChecked from './112-lastChecked.ts';
import * as setCold from './113-setCold.ts';
import * as coldHours from './114-coldHours.ts';
import * as secondReading from './115-secondReading.ts';
import * as folded from './116-folded.ts';
import * as crossed from './118-crossed.ts';
import * as tableChanges from './119-tableChanges.ts';
import * as readingsByDay from './117-readingsByDay.ts';
import { EARLIER_NAMES, earlierSource } from './earlier/index.ts';
import { sourceOf } from './source.ts';

const MIGRATIONS = {
  '100-schema': first,
  '101-printedLimits': printedLimits,
  '102-miles': miles,
  '103-positionPictures': positionPictures,
  '104-origins': origins,
  '105-patternParts': patternParts,
  '106-noteWhere': noteWhere,
  '107-limitsToCome': limitsToCome,
  '108-noMeter': noMeter,
  '109-sheetSystem': sheetSystem,
  '110-jobs': jobs,
  '111-notMeasured': notMeasured,
  '112-lastChecked': lastChecked,
  '113-setCold': setCold,
  '114-coldHours': coldHours,
  '115-secondReading': secondReading,
  '116-folded': folded,
  '117-readingsByDay': readingsByDay,
  '118-crossed': crossed,
  '119-tableChanges': tableChanges,
} as const;

/** The migrations of every database of ours, in order. */
export const migrationSource = sourceOf(MIGRATIONS);

/** Every name that a database of ours may have recorded, by whichever version it was left. */
export const KNOWN_NAMES: readonly string[] = [...EARLIER_NAMES, ...Object.keys(MIGRATIONS)];

/** Where knex writes down what was done to a database. */
const RECORDED = 'knex_migrations';

/**
 * Brings a database that was begun before the first schema was written down as one to where that begins: by the steps that it has not
 * done yet, whose names then give way to the schema's. One that is ended in the middle goes on where it was.
 */
export async function bringOver(db: Knex): Promise<void> {
  if (!(await db.schema.hasTable(RECORDED))) return;
  const recorded: string[] = await db(RECORDED).pluck('name');
  if (!recorded.some((name) => EARLIER_NAMES.includes(name))) return;
  await db.migrate.latest({ migrationSource: earlierSource });
  const [name] = Object.keys(MIGRATIONS);
  await db.transaction(async (transaction) => {
    await transaction(RECORDED).delete();
    await transaction(RECORDED).insert({ name, batch: 1, migration_time: transaction.fn.now() });
  });
}
