import { randomBytes } from 'node:crypto';
import { headWorkLine } from '@zero-lash/contract/headwork';
import { reading as readingSchema } from '@zero-lash/contract/measuring';
import { ledgerLine } from '@zero-lash/contract/parts';
import {
  recordFile,
  RECORD_TABLES,
  type RecordFile,
  type RecordRow,
  type RecordTable,
  type RecordTaken,
} from '@zero-lash/contract/records';
import { recheckPlan } from '@zero-lash/contract/recheckPlan';
import { sheetFields } from '@zero-lash/contract/sheets';
import { ranLine } from '@zero-lash/contract/ran';
import { wearLine } from '@zero-lash/contract/wear';
import { intervalOf, type Reading } from '@zero-lash/core/measuring';
import { strFromU8, unzipSync } from 'fflate';
import type { Knex } from 'knex';
import { z } from 'zod';
import { addPerson } from '../people/store.ts';
import { Refusal } from '../plugins/errors.ts';
import { peopleColumns, TABLES } from './read.ts';

/** The most a file may come to when it is unpacked. */
const MOST_UNPACKED = 300 * 1024 * 1024;
const PHOTOGRAPH = /^photographs\/([0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12})$/;

const bad = (detail: string) => new Refusal('bad_record', { detail: `${detail} Nothing was taken in.` });

interface Unpacked {
  readonly record: RecordFile;
  readonly pictures: ReadonlyMap<string, Uint8Array>;
}

/**
 * Unpacks a record and looks at every row of it before anything is written.
 *
 * @throws Refusal `bad_record` that says where: cut off, of a newer format, changed by hand, or with a path that leads elsewhere
 */
export function unpackRecord(zip: Uint8Array): Unpacked {
  let size = 0;
  let files: Record<string, Uint8Array>;
  try {
    files = unzipSync(zip, {
      filter: ({ name, originalSize }) => {
        if (name !== 'record.json' && !PHOTOGRAPH.test(name))
          throw bad(`The file holds “${name.slice(0, 80)}”, which is no part of a record.`);
        size += originalSize;
        if (size > MOST_UNPACKED) throw bad('Unpacked it is larger than any record.');
        return true;
      },
    });
  } catch (error) {
    if (error instanceof Refusal) throw error;
    throw bad('The file is cut off, or is no ZIP.');
  }
  const text = files['record.json'];
  if (!text) throw bad('There is no record.json in it.');
  let parsed: unknown;
  try {
    parsed = JSON.parse(strFromU8(text));
  } catch {
    throw bad('Its record.json is cut off, or no JSON.');
  }
  const read = recordFile.safeParse(parsed);
  if (!read.success) {
    const [issue] = read.error.issues;
    throw bad(`${issue!.path.join('.') || 'The file'}: ${issue!.message}.`);
  }
  const record = read.data as RecordFile;
  lookThrough(record);
  const pictures = new Map<string, Uint8Array>();
  for (const [name, bytes] of Object.entries(files)) {
    const id = PHOTOGRAPH.exec(name)?.[1];
    if (id) pictures.set(id, bytes);
  }
  for (const { id } of record.tables.photographs)
    if (!pictures.has(id as string)) throw bad(`The picture of photograph ${id as string} is missing.`);
  return { record, pictures };
}

const LINES: Readonly<Record<string, z.ZodType>> = {
  wear: z.array(wearLine),
  headwork: z.array(headWorkLine),
  ledger: z.array(ledgerLine),
  ran: z.array(ranLine),
};
const revisionParts = sheetFields.pick({
  pattern: true,
  wearLimits: true,
  torques: true,
  recheckPlan: true,
  pieceCharts: true,
  assembly: true,
  runIn: true,
});

/** Looks through a record's rows: what each refers to is in the file, and what follows from something else does follow. */
function lookThrough({ people, tables }: RecordFile): void {
  const own = new Map<string, ReadonlySet<unknown>>(
    TABLES.map((table) => [table, new Set(tables[table].map(({ id }) => id))]),
  );
  own.set('people', new Set(people.map(({ id }) => id)));
  if (tables.engines.length !== 1)
    throw bad(`tables.engines: a record is of one engine, and not of ${tables.engines.length}.`);
  for (const table of TABLES) {
    const refs = Object.entries(RECORD_TABLES[table]).flatMap(([column, kind]) => {
      const to = /^>(\w+)/.exec(kind)?.[1];
      return to === undefined ? [] : [{ column, to }];
    });
    if ('id' in RECORD_TABLES[table] && own.get(table)!.size !== tables[table].length)
      throw bad(`tables.${table}: a row is in it twice.`);
    tables[table].forEach((row, index) => {
      for (const { column, to } of refs)
        if (row[column] !== null && !own.get(to)!.has(row[column]))
          throw bad(`tables.${table}.${index}.${column}: names no row of ${to} in the file.`);
    });
  }
  const fits = (table: RecordTable, index: number, column: string, schema: z.ZodType, value: unknown) => {
    const read = schema.safeParse(value);
    if (!read.success)
      throw bad(
        `tables.${table}.${index}.${column}: ${[...read.error.issues[0]!.path, read.error.issues[0]!.message].join(' ')}.`,
      );
  };
  tables.sheet_revisions.forEach((row, index) =>
    fits('sheet_revisions', index, 'pattern', revisionParts, {
      ...{ pattern: row.pattern, wearLimits: row.wear_limits, torques: row.torques },
      ...{ pieceCharts: row.piece_charts, assembly: row.assembly, runIn: row.run_in },
      recheckPlan: row.recheck_plan,
    }),
  );
  tables.engine_plans.forEach((row, index) =>
    fits('engine_plans', index, 'plan', recheckPlan.nullable(), row.plan),
  );
  tables.rechecks.forEach((row, index) =>
    fits('rechecks', index, 'points', z.array(z.string()).nullish(), row.points),
  );
  tables.build_entries.forEach((row, index) =>
    fits('build_entries', index, 'lines', LINES[row.room as string] ?? z.never(), row.lines),
  );
  tables.readings.forEach((row, index) => {
    fits('readings', index, 'reading', readingSchema, row.reading);
    const { lo, hi } = intervalOf(row.reading as Reading);
    if (lo !== row.lo || hi !== row.hi)
      throw bad(
        `tables.readings.${index}: its figures do not follow from what was read; the file was changed by hand.`,
      );
  });
}

/**
 * Takes an engine's record in, with everything that was ever done on it, in one transaction. People are known again by their
 * names; who is not here comes as somebody who has left. An engine that is here already is left as it is.
 *
 * @throws Refusal `name_taken` where another engine of the shop has its name
 */
export async function takeRecord(db: Knex, { record, pictures }: Unpacked, by: string): Promise<RecordTaken> {
  const { tables } = record;
  const engine = tables.engines[0]!;
  const counts = { builds: tables.builds.length, readings: tables.readings.length };
  const answer = { engineId: engine.id as string, name: engine.name as string, ...counts };
  if (await db('engines').where({ id: engine.id }).first('id')) return { ...answer, already: true };
  const person = await peopleHere(db, record, by);
  const rows = Object.fromEntries(
    TABLES.map((table) => [
      table,
      tables[table].map((row) => ({
        ...row,
        ...Object.fromEntries(
          peopleColumns(table).map((column) => [
            column,
            row[column] === null ? null : person.get(row[column] as string),
          ]),
        ),
      })),
    ]),
  ) as Record<RecordTable, RecordRow[]>;
  await takeSheets(db, rows, record.shop);
  await insert(db, 'instruments', await strangers(db, 'instruments', rows.instruments), {
    // another shop's gauge is not at hand here
    ...{ active: false, version: 1, address: null, check_due: null },
  });
  await insert(db, 'engines', rows.engines);
  await insert(db, 'engine_plans', rows.engine_plans);
  await insert(db, 'usages', rows.usages);
  await insert(
    db,
    'builds',
    rows.builds.map((row) => ({ ...row, carried_round: null })),
  );
  for (const table of ['rechecks', 'recheck_changes', 'point_checks'] as const)
    await insert(db, table, rows[table]);
  await insert(db, 'rounds', rows.rounds);
  for (const { id, carried_round: round } of rows.builds)
    if (round !== null) await db('builds').where({ id }).update({ carried_round: round });
  for (const table of ['stage_moves', 'stage_ticks', 'stage_notes', 'round_conditions', 'readings'] as const)
    await insert(db, table, rows[table]);
  for (const table of ['settings', 'sign_offs', 'build_entries'] as const)
    await insert(db, table, rows[table]);
  for (const row of rows.photographs)
    await db('photographs').insert({ ...row, picture: Buffer.from(pictures.get(row.id as string)!) });
  return { ...answer, already: false };
}

/** Who did anything, as they are known here: by their name; who is not here comes as somebody who has left. */
async function peopleHere(
  db: Knex,
  { people }: RecordFile,
  by: string,
): Promise<ReadonlyMap<string, string>> {
  const here = new Map<string, string>();
  for (const { id, name } of people) {
    const known = await db('people').whereRaw('lower(name) = lower(?)', [name]).first('id');
    if (known) here.set(id, known.id);
    else {
      const added = await addPerson(
        db,
        { name, role: 'viewer', passphrase: randomBytes(24).toString('base64url') },
        by,
      );
      await db('people').where({ id: added.id }).update({ active: false });
      here.set(id, added.id);
    }
  }
  return here;
}

/** Rows that are not here yet. */
async function strangers(db: Knex, table: RecordTable, rows: readonly RecordRow[]): Promise<RecordRow[]> {
  const here = (await db(table)
    .whereIn(
      'id',
      rows.map(({ id }) => id as string),
    )
    .select('id')) as { id: string }[];
  const known = new Set(here.map(({ id }) => id));
  return rows.filter(({ id }) => !known.has(id as string));
}

/** Takes the sheets in that are not here: as drafts with their limits and points, and then as they were published. */
async function takeSheets(db: Knex, rows: Record<RecordTable, RecordRow[]>, shop: string): Promise<void> {
  for (const sheet of await strangers(db, 'sheets', rows.sheets)) {
    const { maker, name } = sheet as { maker: string; name: string };
    const taken = await db('sheets').where({ maker, name }).first('id');
    await insert(db, 'sheets', [{ ...sheet, name: taken ? `${name} (${shop})`.slice(0, 80) : name }]);
  }
  for (const revision of await strangers(db, 'sheet_revisions', rows.sheet_revisions)) {
    const last = await db('sheet_revisions')
      .where({ sheet_id: revision.sheet_id })
      .max('number as number')
      .first();
    const taken = await db('sheet_revisions')
      .where({ sheet_id: revision.sheet_id, number: revision.number })
      .first('id');
    const { status, published_at, checked_by } = revision;
    const number = taken ? (last?.number ?? 0) + 1 : revision.number;
    await insert(db, 'sheet_revisions', [
      { ...revision, number, status: 'draft', published_at: null, checked_by: null, writers: [] },
    ]);
    const own = (row: RecordRow) => row.revision_id === revision.id;
    await insert(db, 'sheet_limits', rows.sheet_limits.filter(own));
    await insert(db, 'lash_points', rows.lash_points.filter(own));
    await db('sheet_revisions').where({ id: revision.id }).update({ status, published_at, checked_by });
  }
}

/** Writes rows as they stand in the file. */
async function insert(
  db: Knex,
  table: RecordTable,
  rows: readonly RecordRow[],
  also: RecordRow = {},
): Promise<void> {
  if (rows.length === 0) return;
  const columns = [...new Set([...Object.keys(rows[0]!), ...Object.keys(also)])];
  const named = columns.map((column) => `"${column}"`).join(', ');
  await db.raw(
    `insert into ${table} (${named}) select ${named} from jsonb_populate_recordset(null::${table}, ?::jsonb)`,
    [JSON.stringify(rows.map((row) => ({ ...row, ...also })))],
  );
}
