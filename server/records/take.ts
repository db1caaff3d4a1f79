import { RECORD_LINES } from '@zero-lash/contract/recordColumns';
import {
  MOST_ROWS,
  recordFile,
  RECORD_TABLES,
  type RecordFile,
  type RecordRow,
  type RecordTable,
  type RecordTaken,
} from '@zero-lash/contract/records';
import { sheetFields } from '@zero-lash/contract/sheets';
import { intervalOf, type Reading } from '@zero-lash/core/measuring';
import { strFromU8, unzipSync } from 'fflate';
import type { Knex } from 'knex';
import { z } from 'zod';
import { knowStranger } from '../people/store.ts';
import { isKept } from '../photographs/picture.ts';
import { databaseRefusalCode } from '../plugins/databaseErrors.ts';
import { Refusal } from '../plugins/errors.ts';
import { TABLES } from './read.ts';

/** The most a file may come to when it is unpacked. */
const MOST_UNPACKED = 300 * 1024 * 1024;
/** The most its rows may come to as text: little enough to be looked through. */
const MOST_JSON_MB = 64;
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
        if (name === 'record.json' && originalSize > MOST_JSON_MB * 1024 * 1024)
          throw bad(`Its record.json is over ${MOST_JSON_MB} MB.`);
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
  const rows = rowsIn(parsed);
  if (rows > MOST_ROWS) throw bad(`It has ${rows} rows, and no record has over ${MOST_ROWS}.`);
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

/** How many rows a file has in all its tables, before anything else is known of it. */
function rowsIn(file: unknown): number {
  const { tables } = (file ?? {}) as { tables?: unknown };
  if (typeof tables !== 'object' || tables === null) return 0;
  return Object.values(tables).reduce<number>(
    (sum, table) => sum + (Array.isArray(table) ? table.length : 0),
    0,
  );
}

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
  tables.build_entries.forEach((row, index) =>
    fits('build_entries', index, 'lines', RECORD_LINES[row.room as string] ?? z.never(), row.lines),
  );
  tables.readings.forEach((row, index) => {
    const { lo, hi } = intervalOf(row.reading as Reading);
    if (lo !== row.lo || hi !== row.hi)
      throw bad(
        `tables.readings.${index}: its figures do not follow from what was read; the file was changed by hand.`,
      );
  });
}

/**
 * Looks at every picture of a record as at one that is sent here, before anything is begun.
 *
 * @throws Refusal `bad_record` that says which is none that is kept
 */
export async function lookAtPictures({ record, pictures }: Unpacked): Promise<void> {
  for (const [index, { id, width, height }] of record.tables.photographs.entries())
    if (!(await isKept(Buffer.from(pictures.get(id as string)!), { width, height })))
      throw bad(
        `tables.photographs.${index}: its picture is damaged, of another size than is said, or none as it is kept.`,
      );
}

/**
 * Takes an engine's record in, with everything that was ever done on it, in one transaction. People are known again by their
 * ids alone; who is not here comes as somebody of that shop, who can do nothing here. An engine that is here already is left as it is.
 *
 * @throws Refusal `name_taken` where another engine of the shop has its name
 */
export async function takeRecord(db: Knex, { record, pictures }: Unpacked, by: string): Promise<RecordTaken> {
  const { tables } = record;
  const engine = tables.engines[0]!;
  const counts = { builds: tables.builds.length, readings: tables.readings.length };
  const answer = { engineId: engine.id as string, name: engine.name as string, ...counts };
  if (await db('engines').where({ id: engine.id }).first('id')) return { ...answer, already: true };
  for (const person of record.people) await knowStranger(db, person, record.shop, by);
  await takeSheets(db, tables, record.shop);
  await insert(db, 'instruments', await strangers(db, 'instruments', tables.instruments), {
    // another shop's gauge is not at hand here
    ...{ active: false, version: 1, address: null, check_due: null },
  });
  await insert(db, 'engines', tables.engines);
  await insert(db, 'engine_plans', tables.engine_plans);
  await insert(db, 'usages', tables.usages);
  await insert(
    db,
    'builds',
    tables.builds.map((row) => ({ ...row, carried_round: null })),
  );
  for (const table of ['rechecks', 'recheck_changes', 'point_checks'] as const)
    await insert(db, table, tables[table]);
  await insert(db, 'rounds', tables.rounds);
  for (const { id, carried_round: round } of tables.builds)
    if (round !== null) await db('builds').where({ id }).update({ carried_round: round });
  for (const table of ['stage_moves', 'stage_ticks', 'stage_notes', 'round_conditions', 'readings'] as const)
    await insert(db, table, tables[table]);
  for (const table of ['settings', 'sign_offs', 'build_entries'] as const)
    await insert(db, table, tables[table]);
  for (const row of tables.photographs)
    await db('photographs').insert({ ...row, picture: Buffer.from(pictures.get(row.id as string)!) });
  return { ...answer, already: false };
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
async function takeSheets(db: Knex, rows: RecordFile['tables'], shop: string): Promise<void> {
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
  try {
    await db.raw(
      `insert into ${table} (${named}) select ${named} from jsonb_populate_recordset(null::${table}, ?::jsonb)`,
      [JSON.stringify(rows.map((row) => ({ ...row, ...also })))],
    );
  } catch (error) {
    throw refusalOf(error as { code?: string; constraint?: string; column?: string }, table);
  }
}

/** What no column takes is what the file says, and not what broke here: which table of it, and by which of its rules. */
function refusalOf(
  error: { readonly code?: string; readonly constraint?: string; readonly column?: string },
  table: RecordTable,
): unknown {
  // a name that is taken here is this shop's own, and says so; classes 22 and 23: figures, texts and rows that do not fit
  if (databaseRefusalCode(error) === 'name_taken' || !/^2[23]/.test(error.code ?? '')) return error;
  const rule = error.constraint ?? error.column;
  return bad(`tables.${table}: a row does not fit${rule === undefined ? '' : ` (${rule})`}.`);
}
