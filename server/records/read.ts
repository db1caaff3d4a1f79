import {
  RECORD_FORMAT,
  RECORD_TABLES,
  type RecordFile,
  type RecordRow,
  type RecordTable,
} from '@zero-lash/contract/records';
import { strToU8, zipSync, type Zippable } from 'fflate';
import type { Knex } from 'knex';
import { clock } from '../clock.ts';
import { Refusal } from '../plugins/errors.ts';

/** The rows of each table that belong to an engine: `e` is its id. */
const WHOSE: Readonly<Record<RecordTable, string>> = {
  owners: 'id in (select owner_id from engines where id = :e)',
  instruments: `id in (select g.instrument_id from readings g join rounds r on r.id = g.round_id
    join builds b on b.id = r.build_id where b.engine_id = :e)`,
  instrument_checks: `instrument_id in (select g.instrument_id from readings g join rounds r on r.id = g.round_id
    join builds b on b.id = r.build_id where b.engine_id = :e)`,
  sheets: `id in (select sheet_id from engines where id = :e
    union select v.sheet_id from builds b join sheet_revisions v on v.id = b.revision_id where b.engine_id = :e)`,
  sheet_revisions: 'id in (select revision_id from builds where engine_id = :e)',
  sheet_limits: 'revision_id in (select revision_id from builds where engine_id = :e)',
  lash_points: 'revision_id in (select revision_id from builds where engine_id = :e)',
  engines: 'id = :e',
  records_taken: 'engine_id = :e',
  engine_plans: 'engine_id = :e',
  usages: 'engine_id = :e',
  builds: 'engine_id = :e',
  rechecks: 'engine_id = :e',
  recheck_changes: 'recheck_id in (select id from rechecks where engine_id = :e)',
  point_checks: 'engine_id = :e',
  rounds: 'build_id in (select id from builds where engine_id = :e)',
  stage_moves: 'build_id in (select id from builds where engine_id = :e)',
  stage_ticks: 'build_id in (select id from builds where engine_id = :e)',
  stage_notes: 'build_id in (select id from builds where engine_id = :e)',
  round_conditions: `round_id in (select r.id from rounds r join builds b on b.id = r.build_id where b.engine_id = :e)`,
  readings: `round_id in (select r.id from rounds r join builds b on b.id = r.build_id where b.engine_id = :e)`,
  settings: 'build_id in (select id from builds where engine_id = :e)',
  sign_offs: 'build_id in (select id from builds where engine_id = :e)',
  build_entries: 'build_id in (select id from builds where engine_id = :e)',
  photographs: 'build_id in (select id from builds where engine_id = :e)',
  know_how: 'build_id in (select id from builds where engine_id = :e)',
  pattern_parts: 'build_id in (select id from builds where engine_id = :e)',
  piece_moves: 'build_id in (select id from builds where engine_id = :e)',
};

/** Names of the tables of a record, in the order in which each has what it refers to before it. */
export const TABLES = Object.keys(RECORD_TABLES) as RecordTable[];

/** Columns of a table that name a person. */
export const peopleColumns = (table: RecordTable): readonly string[] =>
  Object.entries(RECORD_TABLES[table])
    .filter(([, kind]) => (kind as string).startsWith('>people'))
    .map(([column]) => column);

/** Everything that was ever done on an engine, as it stands in its file. */
export async function readRecord(db: Knex, engineId: string): Promise<RecordFile> {
  return db.transaction(
    async (transaction) => {
      const tables = {} as Record<RecordTable, readonly RecordRow[]>;
      for (const table of TABLES) {
        const columns = Object.keys(RECORD_TABLES[table]);
        const { rows } = await transaction.raw(
          `select coalesce(json_agg(t order by ${columns.includes('id') ? 'id' : columns.map((each) => `"${each}"`).join(', ')}), '[]') as rows
             from (select ${columns.map((each) => `"${each}"`).join(', ')} from ${table} where ${WHOSE[table]}) t`,
          { e: engineId },
        );
        tables[table] = rows[0].rows as RecordRow[];
      }
      if (tables.engines.length === 0) throw new Refusal('not_found', { detail: 'There is no such engine.' });
      const named = new Set(
        TABLES.flatMap((table) =>
          tables[table].flatMap((row) =>
            peopleColumns(table)
              .flatMap((column) => row[column] as string | null | (string | null)[])
              .filter((each) => each !== null),
          ),
        ),
      );
      const shop = (await transaction('shop').first('name'))!;
      return {
        format: 'zero-lash-record',
        formatVersion: RECORD_FORMAT,
        shop: shop.name,
        writtenAt: clock.now().toISOString(),
        people: await transaction('people')
          .whereIn('id', [...named])
          .orderBy('name')
          .select('id', 'name'),
        tables,
      };
    },
    { isolationLevel: 'repeatable read', readOnly: true },
  );
}

/**
 * The same with its photographs, as one ZIP.
 *
 * @param addresses whether its owner's address for mail is in it
 */
export async function zipRecord(db: Knex, engineId: string, addresses = true): Promise<Buffer> {
  const record = await readRecord(db, engineId);
  if (!addresses) record.tables.owners.forEach((owner) => Object.assign(owner, { email: '' }));
  const files: Zippable = { 'record.json': strToU8(`${JSON.stringify(record, null, 1)}\n`) };
  for (const row of record.tables.photographs) {
    const id = row.id as string;
    const { picture } = (await db('photographs').where({ id }).first('picture'))!;
    // a picture is pressed already
    files[`photographs/${id}`] = [picture, { level: 0 }];
  }
  return Buffer.from(zipSync(files));
}
