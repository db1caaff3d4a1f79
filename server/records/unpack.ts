import { AFTER_RECHECK, JOB_KEYS, WHOLE_JOB, type JobKey } from '@zero-lash/core/builds';
import { RECORD_LINES, type RecordDifference } from '@zero-lash/contract/recordColumns';
import {
  MOST_ROWS,
  recordFile,
  RECORD_TABLES,
  type RecordFile,
  type RecordRow,
  type RecordTable,
} from '@zero-lash/contract/records';
import { sheetBody } from '@zero-lash/contract/sheets';
import { intervalOf, type Reading } from '@zero-lash/core/measuring';
import { lashPoints } from '@zero-lash/core/sheets';
import { strFromU8, unzipSync } from 'fflate';
import type { z } from 'zod';
import { mmOrNull } from '../length.ts';
import { HELD_EDGE } from '../sheets/positionPictures.ts';
import { isKept } from '../plugins/picture.ts';
import { Refusal } from '../plugins/errors.ts';
import { differencesIn } from './differences.ts';
import { TABLES } from './read.ts';

/** The most a file may come to when it is unpacked. */
const MOST_UNPACKED_MB = 300;
/** The most its rows may come to as text: little enough to be looked through. */
const MOST_JSON_MB = 64;
/** The most one picture may come to: far more than one as it is kept. */
const MOST_PICTURE_MB = 8;
const MB = 1024 * 1024;
const PHOTOGRAPH = /^photographs\/([0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12})$/;

/** A file that is no record of an engine, or not one that can be taken in; with where it is wrong. */
export const badRecord = (detail: string) =>
  new Refusal('bad_record', { detail: `${detail} Nothing was imported.` });

/** Tables that are only written, and never looked at again: as many rows as there may be. */
const MANY = [
  ...(['engine_plans', 'usages', 'rechecks', 'recheck_changes', 'point_checks', 'rounds'] as const),
  ...(['stage_moves', 'stage_ticks', 'stage_notes', 'round_conditions', 'readings', 'settings'] as const),
  ...(['sign_offs', 'build_entries', 'know_how', 'pattern_parts', 'piece_moves'] as const),
  'records_taken',
] as const;
export type ManyTable = (typeof MANY)[number];

/** Rows as JSON text, which goes from thread to thread and into the database as it is, with every column that any of them has. */
export interface RowsText {
  readonly columns: readonly string[];
  readonly text: string;
}

/** Writes rows as text. */
export const asText = (rows: readonly RecordRow[]): RowsText => ({
  columns: [...new Set(rows.flatMap((row) => Object.keys(row)))],
  text: JSON.stringify(rows),
});

/** A record that was looked through: ready to be taken in. */
export interface LookedThrough {
  readonly file: Omit<RecordFile, 'tables'>;
  readonly rows: Readonly<Record<Exclude<RecordTable, ManyTable>, readonly RecordRow[]>>;
  readonly texts: Readonly<Record<ManyTable, RowsText>>;
  readonly readings: number;
  /** which rechecks stand against what was signed, by what came in late to which round */
  readonly late: readonly RecordRow[];
  readonly differences: readonly RecordDifference[];
}

/**
 * Unpacks a record and looks at every row of it before anything is written.
 *
 * @throws Refusal `bad_record` that says where: cut off, of a newer format, changed by hand, or with a path that leads elsewhere
 * @example lookThrough(zip).rows.engines[0].name
 */
export function lookThrough(zip: Uint8Array): LookedThrough {
  const { text, photographs } = entriesOf(zip);
  let parsed: unknown;
  try {
    parsed = JSON.parse(strFromU8(text));
  } catch {
    throw badRecord('Its record.json is cut off, or no JSON.');
  }
  const rows = rowsIn(parsed);
  if (rows > MOST_ROWS) throw badRecord(`It has ${rows} rows, and no record has over ${MOST_ROWS}.`);
  const read = recordFile.safeParse(parsed);
  if (!read.success) {
    const [issue] = read.error.issues;
    throw badRecord(`${issue!.path.join('.') || 'The file'}: ${issue!.message}.`);
  }
  const record = read.data as RecordFile;
  lookAtRows(record);
  for (const { id } of record.tables.photographs)
    if (!photographs.has(id as string))
      throw badRecord(`The picture of photograph ${id as string} is missing.`);
  const { readings, found } = differencesIn(record);
  const { tables: told, ...file } = record;
  const tables = { ...told, builds: told.builds.map(withJob) };
  const judged = {
    ...{ ...tables, readings, usages: withMeters(tables.usages) },
    rechecks: tables.rechecks.map((row) => ({ ...row, late_round: null })),
    ...{ settings: cameAsDone(tables.settings), build_entries: cameAsDone(tables.build_entries) },
  };
  const many = new Set<string>(MANY);
  return {
    ...{ file, readings: readings.length, differences: found },
    // a round is written after its recheck
    late: tables.rechecks.filter(({ late_round: round }) => (round ?? null) !== null),
    rows: Object.fromEntries(
      TABLES.filter((table) => !many.has(table)).map((table) => [table, tables[table]]),
    ) as LookedThrough['rows'],
    texts: Object.fromEntries(MANY.map((table) => [table, asText(judged[table])])) as LookedThrough['texts'],
  };
}

/** Builds with what was done: files written before it was kept have the whole of it, or what sets a recheck's finding again. */
function withJob(row: RecordRow, index: number): RecordRow {
  const job = row.job ?? ((row.carried_round ?? null) === null ? WHOLE_JOB : AFTER_RECHECK);
  if (!JOB_KEYS.includes(job as JobKey))
    throw badRecord(`tables.builds.${index}.job: ${String(job)} is no job that is known here.`);
  return { ...row, job };
}

/**
 * Usages with both figures of each change of meter. Files written before they were kept say them in the words of its reason, as
 * the program wrote them then.
 */
function withMeters(rows: readonly RecordRow[]): readonly RecordRow[] {
  return rows.map((row) => {
    if (!row.new_meter || typeof row.meter_from === 'number') return row;
    const said = (words: RegExp) => Number(words.exec(row.reason as string)?.[1] ?? 0);
    const old = said(/old one stopped at (\d+(?:\.\d)?)/);
    return { ...row, meter_from: said(/begun at (\d+(?:\.\d)?)/), old_stopped_at: old };
  });
}

/** Rows with when they came in: those of files written before that was kept came in as they were done. */
const cameAsDone = (rows: readonly RecordRow[]): readonly RecordRow[] =>
  rows.map((row) => (row.came_at === undefined ? { ...row, came_at: row.at } : row));

/** The text of a record's rows, and the photographs that are in the file, which are left where they are. */
function entriesOf(zip: Uint8Array): {
  readonly text: Uint8Array;
  readonly photographs: ReadonlySet<string>;
} {
  const photographs = new Set<string>();
  let size = 0;
  let files: Record<string, Uint8Array>;
  try {
    files = unzipSync(zip, {
      filter: ({ name, originalSize }) => {
        const photograph = PHOTOGRAPH.exec(name)?.[1];
        if (name !== 'record.json' && photograph === undefined)
          throw badRecord(`The file holds “${name.slice(0, 80)}”, which is no part of a record.`);
        const most = photograph === undefined ? MOST_JSON_MB : MOST_PICTURE_MB;
        if (originalSize > most * MB)
          throw badRecord(
            photograph === undefined ? `Its record.json is over ${most} MB.` : `${name} is over ${most} MB.`,
          );
        size += originalSize;
        if (size > MOST_UNPACKED_MB * MB) throw badRecord(`Unpacked it is over ${MOST_UNPACKED_MB} MB.`);
        if (photograph !== undefined) photographs.add(photograph);
        return name === 'record.json';
      },
    });
  } catch (error) {
    if (error instanceof Refusal) throw error;
    throw badRecord('The file is cut off, or is no ZIP.');
  }
  const text = files['record.json'];
  if (!text) throw badRecord('There is no record.json in it.');
  return { text, photographs };
}

/**
 * The picture of a photograph of a record: one at a time, however many there are.
 *
 * @throws Refusal `bad_record` where it cannot be unpacked
 */
export function pictureIn(zip: Uint8Array, id: string): Buffer {
  const path = `photographs/${id}`;
  try {
    return Buffer.from(unzipSync(zip, { filter: ({ name }) => name === path })[path]!);
  } catch {
    throw badRecord(`The picture of photograph ${id} cannot be unpacked.`);
  }
}

/**
 * Looks at every picture of a record as at one that is sent here, before anything is begun.
 *
 * @throws Refusal `bad_record` that says which is none that is kept
 */
export async function lookAtPictures(
  zip: Uint8Array,
  { photographs, sheet_revisions: revisions }: Pick<LookedThrough['rows'], 'photographs' | 'sheet_revisions'>,
): Promise<void> {
  for (const [index, { pictures }] of revisions.entries())
    for (const [at, { file }] of ((pictures ?? []) as { file: string }[]).entries())
      if (!(await isKept(Buffer.from(file, 'base64'), undefined, HELD_EDGE)))
        throw badRecord(`tables.sheet_revisions.${index}.pictures.${at}: is damaged, or none as it is kept.`);

  for (const [index, { id, width, height }] of photographs.entries())
    if (!(await isKept(pictureIn(zip, id as string), { width, height })))
      throw badRecord(
        `tables.photographs.${index}: its picture is damaged, of another size than is said, or none as it is kept.`,
      );
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

/** Looks through a record's rows: what each refers to is in the file, and what follows from something else does follow. */
function lookAtRows({ people, tables }: RecordFile): void {
  const own = new Map<string, ReadonlySet<unknown>>(
    TABLES.map((table) => [table, new Set(tables[table].map(({ id }) => id))]),
  );
  own.set('people', new Set(people.map(({ id }) => id)));
  if (own.get('people')!.size !== people.length) throw badRecord('people: somebody is in it twice.');
  if (tables.engines.length !== 1)
    throw badRecord(`tables.engines: a record is of one engine, and not of ${tables.engines.length}.`);
  for (const table of TABLES) {
    const refs = Object.entries(RECORD_TABLES[table]).flatMap(([column, kind]) => {
      const to = /^>(\w+)/.exec(kind)?.[1];
      return to === undefined ? [] : [{ column, to }];
    });
    if ('id' in RECORD_TABLES[table] && own.get(table)!.size !== tables[table].length)
      throw badRecord(`tables.${table}: a row is in it twice.`);
    tables[table].forEach((row, index) => {
      for (const { column, to } of refs)
        // what came later is not in every file
        if ([row[column] ?? null].flat().some((each) => each !== null && !own.get(to)!.has(each)))
          throw badRecord(`tables.${table}.${index}.${column}: names no row of ${to} in the file.`);
    });
  }
  lookAtSheets(tables);
  tables.build_entries.forEach((row, index) =>
    fits(`build_entries.${index}.lines`, RECORD_LINES[row.room as string], row.lines),
  );
  tables.readings.forEach((row, index) => {
    const { lo, hi } = intervalOf(row.reading as Reading);
    if (lo !== row.lo || hi !== row.hi)
      throw badRecord(
        `tables.readings.${index}: its figures do not follow from what was read; the file was changed by hand.`,
      );
  });
}

function fits(path: string, schema: z.ZodType | undefined, value: unknown): void {
  const read = schema?.safeParse(value);
  if (read?.success) return;
  const [issue] = read?.error.issues ?? [];
  const why = issue ? [...issue.path, issue.message].join(' ') : 'is of no kind that is known here';
  throw badRecord(`tables.${path}: ${why}.`);
}

/** Holds each sheet to what one is held to that is written here, and its points to what its pattern has. */
function lookAtSheets(tables: RecordFile['tables']): void {
  tables.sheet_revisions.forEach((row, index) => {
    const at = `sheet_revisions.${index}`;
    const own = (other: RecordRow) => other.revision_id === row.id;
    fits(at, sheetBody, {
      ...{ pattern: row.pattern, condition: row.condition, temperature: row.temperature },
      limits: tables.sheet_limits.filter(own).map((limit) => ({
        ...{ role: limit.role, asWritten: limit.as_written },
        ...{
          min: mmOrNull(limit.min_tenths as number | null),
          max: mmOrNull(limit.max_tenths as number | null),
        },
        ...{ figure: mmOrNull((limit.figure_tenths ?? null) as number | null), also: limit.also ?? [] },
      })),
      ...{ wearLimits: row.wear_limits, torques: row.torques, wanted: row.wanted, runIn: row.run_in },
      ...{ pieceCharts: row.piece_charts, assembly: row.assembly, usageUnit: row.usage_unit },
      ...{ recheckPlan: row.recheck_plan, source: row.source, notes: row.notes },
      secondSource: row.second_source ?? null,
      ...{ pictures: row.pictures ?? [], origins: row.origins ?? {} },
      ...{ limitsToCome: row.limits_to_come ?? false, system: row.system ?? null },
    });
    if (row.status === 'draft') throw badRecord(`tables.${at}.status: nothing is built on a draft.`);
    const has = new Map(tables.lash_points.filter(own).map(({ key, role }) => [key, role]));
    const points = lashPoints(row.pattern as Parameters<typeof lashPoints>[0]);
    if (points.length !== has.size || points.some(({ key, role }) => has.get(key) !== role))
      throw badRecord(`tables.${at}: its lash points are not those of its pattern.`);
  });
}
