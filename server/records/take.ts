import type { ComesIn, RecordRow, RecordTable, RecordTaken } from '@zero-lash/contract/records';
import type { Knex } from 'knex';
import type { Tables } from 'knex/types/tables.js';
import { knowStrangers } from '../people/strangers.ts';
import { databaseRefusalCode } from '../plugins/databaseErrors.ts';
import { readBack } from './readBack.ts';
import { asText, badRecord, pictureIn, type LookedThrough, type ManyTable, type RowsText } from './unpack.ts';

/** A record that was looked through, with the file that its pictures are in. */
export interface RecordToTake {
  readonly record: LookedThrough;
  readonly zip: Uint8Array;
}

/**
 * Takes an engine's record in, with everything that was ever done on it, in one transaction. People are known again by their
 * ids alone; who is not here comes as somebody of that shop, who can do nothing here. Its sheets come as another shop's, and open
 * no build. An engine that is here already is left as it is.
 *
 * @throws Refusal `name_taken` where another engine of the shop has its name, `bad_record` where a row does not fit
 */
export async function takeRecord(db: Knex, { record, zip }: RecordToTake, by: string): Promise<RecordTaken> {
  const { file, rows, differences } = record;
  const engine = rows.engines[0]!;
  const answer = {
    ...{
      engineId: engine.id as string,
      name: engine.name as string,
      shop: file.shop,
      writtenAt: file.writtenAt,
    },
    ...{ builds: rows.builds.length, readings: record.readings, differences: [...differences] },
  };
  if (await db('engines').where({ id: answer.engineId }).first('id'))
    return { ...answer, already: true, strangers: [], owners: [], instruments: [], sheets: [] };
  const strangers = await knowStrangers(db, file.people, file.shop, by);
  const owners = await takeOwner(db, rows.owners);
  const sheets = await takeSheets(db, rows, file.shop);
  const { instruments, knownAs } = await takeInstruments(db, rows, file.shop);
  await insert(db, 'engines', rows.engines);
  const write = (table: ManyTable, also?: Also) => insertText(db, table, record.texts[table], also);
  await write('records_taken');
  await write('engine_plans');
  await write('usages');
  await insert(
    db,
    'builds',
    rows.builds.map((row) => ({ ...row, carried_round: null })),
  );
  for (const table of ['rechecks', 'recheck_changes', 'point_checks'] as const) await write(table);
  await write('rounds');
  for (const { id, late_round: round } of record.late as readonly Tables['rechecks'][])
    await db('rechecks').where({ id }).update({ late_round: round });
  for (const { id, carried_round: round } of rows.builds as readonly Tables['builds'][])
    if (round !== null) await db('builds').where({ id }).update({ carried_round: round });
  for (const table of ['stage_moves', 'stage_ticks', 'stage_notes', 'round_conditions'] as const)
    await write(table);
  await write('readings', {
    column: 'instrument_id',
    is: 'coalesce((?::jsonb ->> instrument_id::text)::uuid, instrument_id)',
    from: JSON.stringify(knownAs),
  });
  for (const table of ['settings', 'sign_offs', 'build_entries', 'know_how', 'pattern_parts'] as const)
    await write(table);
  // they came out of another shop's drawer, and count in none here
  await write('piece_moves', { column: 'of_shop', is: 'coalesce(of_shop, ?::text)', from: file.shop });
  for (const row of rows.photographs)
    await db('photographs').insert({ ...row, picture: pictureIn(zip, row.id as string) });
  await db('records_taken').insert({
    ...{ engine_id: answer.engineId, shop: file.shop, written_at: new Date(file.writtenAt), by },
    differences: JSON.stringify(differences),
  });
  await readBack(db, {
    engine: answer.engineId,
    instruments: rows.instruments.map(({ id }) => knownAs[id as string] ?? (id as string)),
    sheets: rows.sheets.map(({ id }) => id as string),
    builds: rows.builds.map(({ id }) => id as string),
  });
  return { ...answer, already: false, strangers, owners, instruments, sheets };
}

/** Ends a transaction that was only to show what it would do. */
class OnlyTried extends Error {
  readonly taken: RecordTaken;
  constructor(taken: RecordTaken) {
    super('nothing was to be written');
    this.taken = taken;
  }
}

/**
 * What taking a record in would do: it is taken in and put back, so that it says what would come of it and nothing else.
 *
 * @throws what `takeRecord` does
 */
export async function wouldTake(db: Knex, take: RecordToTake, by: string): Promise<RecordTaken> {
  try {
    return await db.transaction(async (transaction) => {
      throw new OnlyTried(await takeRecord(transaction, take, by));
    });
  } catch (error) {
    if (error instanceof OnlyTried) return error.taken;
    throw error;
  }
}

/** Rows that are not here yet. */
async function notHere(db: Knex, table: RecordTable, rows: readonly RecordRow[]): Promise<RecordRow[]> {
  const here = (await db(table)
    .whereIn(
      'id',
      rows.map(({ id }) => id as string),
    )
    .select('id')) as { id: string }[];
  const known = new Set(here.map(({ id }) => id));
  return rows.filter(({ id }) => !known.has(id as string));
}

/** An owner is known by name, as everywhere: of one that is here the shop's own address and wish stand. */
async function takeOwner(db: Knex, rows: readonly RecordRow[]): Promise<ComesIn[]> {
  const owners: ComesIn[] = [];
  for (const row of rows) {
    const name = row.name as string;
    const here = await db('owners').whereRaw('lower(name) = lower(?)', [name]).first('name');
    owners.push({ name, as: here?.name ?? name, known: here !== undefined });
    // under an id of this shop's own where that one is taken
    if (!here) await insert(db, 'owners', await withFreeIds(db, 'owners', [row]));
  }
  return owners;
}

async function withFreeIds(db: Knex, table: RecordTable, rows: readonly RecordRow[]): Promise<RecordRow[]> {
  const free = new Set((await notHere(db, table, rows)).map(({ id }) => id));
  return rows.map((row) => {
    if (free.has(row.id)) return row;
    const { id: _, ...rest } = row;
    return { id: crypto.randomUUID(), ...rest };
  });
}

/** What an instrument is known by, besides its name. */
const OF_INSTRUMENT = [
  ...['kind', 'unit', 'uncertainty', 'angled', 'thicknesses', 'missing', 'worn', 'measured'],
  ...['torque_from', 'torque_to'],
];
const MOST_NAME = 60;

/**
 * Takes the instruments in that are not here. One of the same name that is the same in all that is known of it is ours; one that
 * is another comes under another name, with the checks that were made of it there.
 */
async function takeInstruments(
  db: Knex,
  { instruments, instrument_checks: checks }: LookedThrough['rows'],
  shop: string,
): Promise<{ instruments: ComesIn[]; knownAs: Record<string, string> }> {
  const strangers = new Set((await notHere(db, 'instruments', instruments)).map(({ id }) => id));
  const knownAs: Record<string, string> = {};
  const come: ComesIn[] = [];
  for (const row of instruments) {
    const name = row.name as string;
    if (!strangers.has(row.id)) {
      const own = (await db('instruments')
        .where({ id: row.id as string })
        .first('name'))!;
      come.push({ name, as: own.name, known: true });
      continue;
    }
    const { rows: same } = await db.raw(
      `select i.id, i.name, ${OF_INSTRUMENT.map((column) => `i.${column} is not distinct from f.${column}`).join(' and ')} as alike
         from instruments i, jsonb_populate_record(null::instruments, ?::jsonb) f where lower(i.name) = lower(?)`,
      [JSON.stringify(row), name],
    );
    if (same[0]?.alike) {
      knownAs[row.id as string] = same[0].id;
      come.push({ name, as: same[0].name, known: true });
      continue;
    }
    const as = same[0] ? await freeName(db, 'instruments', name, shop) : name;
    come.push({ name, as, known: false });
    await insert(db, 'instruments', [
      // another shop's gauge is not at hand here
      { ...row, ...{ name: as, active: false, version: 1, address: null, check_due: null } },
    ]);
    await insert(
      db,
      'instrument_checks',
      await withFreeIds(
        db,
        'instrument_checks',
        checks.filter((check) => check.instrument_id === row.id),
      ),
    );
  }
  return { instruments: come, knownAs };
}

/** A name that is taken here, with the shop it is of; and with a number, where that is taken too. */
async function freeName(
  db: Knex,
  table: 'instruments' | 'sheets',
  name: string,
  shop: string,
): Promise<string> {
  const most = table === 'sheets' ? 80 : MOST_NAME;
  for (let number = 1; ; number += 1) {
    const tail = ` (${shop.slice(0, 30)}${number === 1 ? '' : ` ${number}`})`;
    const full = `${name.slice(0, most - tail.length)}${tail}`;
    if (!(await db(table).whereRaw('lower(name) = lower(?)', [full]).first('id'))) return full;
  }
}

/** Takes the sheets in that are not here: fixed, and as another shop's. */
async function takeSheets(db: Knex, rows: LookedThrough['rows'], shop: string): Promise<ComesIn[]> {
  const strangers = new Set((await notHere(db, 'sheets', rows.sheets)).map(({ id }) => id));
  const come: ComesIn[] = [];
  for (const sheet of rows.sheets) {
    const { id, maker, name } = sheet as Tables['sheets'];
    if (!strangers.has(sheet.id)) {
      const own = (await db('sheets').where({ id }).first('name'))!;
      come.push({ name, as: own.name, known: true });
      continue;
    }
    const taken = await db('sheets').where({ maker, name }).first('id');
    const as = taken ? await freeName(db, 'sheets', name, shop) : name;
    come.push({ name, as, known: false });
    await insert(db, 'sheets', [{ ...sheet, name: as }]);
  }
  for (const revision of await notHere(db, 'sheet_revisions', rows.sheet_revisions)) {
    const { id, sheet_id, number, created_at } = revision as Tables['sheet_revisions'];
    const taken = await db('sheet_revisions').where({ sheet_id, number }).first('id');
    const last =
      taken && (await db('sheet_revisions').where({ sheet_id }).orderBy('number', 'desc').first('number'));
    await insert(db, 'sheet_revisions', [
      {
        ...{ ...revision, number: last ? last.number + 1 : number, status: 'foreign' },
        // it is fixed as soon as all of it is there
        ...{ published_at: null, writers: [], read_by: null, read_at: null },
      },
    ]);
    const own = (row: RecordRow) => row.revision_id === id;
    await insert(db, 'sheet_limits', rows.sheet_limits.filter(own));
    await insert(db, 'lash_points', rows.lash_points.filter(own));
    await db('sheet_revisions')
      .where({ id })
      .update({ published_at: (revision as Tables['sheet_revisions']).published_at ?? created_at });
  }
  return come;
}

/** Writes rows as they stand in the file. */
async function insert(db: Knex, table: RecordTable, rows: readonly RecordRow[]): Promise<void> {
  await insertText(db, table, asText(rows));
}

/** A column that is written otherwise than it stands in the file. */
interface Also {
  readonly column: string;
  /** what it is, in SQL, of the row's own columns and of `from` */
  readonly is: string;
  readonly from: string;
}

/** Writes rows that are JSON text; columns that a file does not have yet get what the database gives them. */
async function insertText(
  db: Knex,
  table: RecordTable,
  { columns, text }: RowsText,
  also?: Also,
): Promise<void> {
  if (columns.length === 0) return;
  const all = [...new Set(also ? [...columns, also.column] : columns)];
  const named = all.map((column) => `"${column}"`).join(', ');
  const are = all.map((column) => (also?.column === column ? also.is : `"${column}"`)).join(', ');
  try {
    await db.raw(
      `insert into ${table} (${named}) select ${are} from jsonb_populate_recordset(null::${table}, ?::jsonb)`,
      [...(also ? [also.from] : []), text],
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
  return badRecord(`tables.${table}: a row does not fit${rule === undefined ? '' : ` (${rule})`}.`);
}
