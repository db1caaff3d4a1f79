import type { SheetRevision } from '@zero-lash/contract/sheets';
import { hollowAt, wearSheetOf } from '@zero-lash/core/wear';
import type { Knex } from 'knex';
import { readEntries } from '../entries/read.ts';

/** The points of a build at which a hollow is worn in, by what is written down of its wear. */
export async function hollowsOf(
  db: Knex,
  buildId: string,
  { wearLimits, pattern }: Pick<SheetRevision, 'wearLimits' | 'pattern'>,
): Promise<ReadonlySet<string>> {
  return hollowAt(wearSheetOf(await readEntries(db, buildId, 'wear'), wearLimits), pattern);
}
