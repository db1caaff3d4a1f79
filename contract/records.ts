import { z } from 'zod';
import { RECORD_JSON, recordDifference } from './recordColumns.ts';
import { day, id, line, moment, written } from './values.ts';

/**
 * What a column of a record holds. An id that ends in `>` and a name is one of a row of that table in the same file; `?` stands
 * for what may be null, and `~` for what files written before it was kept do not have: the database's own default stands.
 */
type Column = 'id' | 'text' | 'number' | 'truth' | 'moment' | 'day' | 'json' | `>${string}`;

/** Every table of a record with its columns, in the order that they are read in. */
export const RECORD_TABLES = {
  owners: { id: 'id', name: 'text', email: 'text', tells: 'text', note: 'text' },
  instruments: {
    ...{ id: 'id', name: 'text', kind: 'text', unit: 'text', uncertainty: 'number', angled: 'truth' },
    ...{ thicknesses: 'json', missing: 'json', worn: 'json', measured: 'json' },
    ...{ torque_from: 'number?', torque_to: 'number?' },
  },
  instrument_checks: {
    ...{ id: 'id', instrument_id: '>instruments', block: 'number', found: 'number', passed: 'truth' },
    ...{ note: 'text', next_due: 'day', by: '>people', at: 'moment' },
  },
  sheets: { id: 'id', name: 'text', maker: 'text', created_at: 'moment' },
  sheet_revisions: {
    ...{
      id: 'id',
      sheet_id: '>sheets',
      number: 'number',
      status: 'text',
      pattern: 'json',
      condition: 'text',
    },
    ...{ temperature: 'json?', usage_unit: 'text', recheck_plan: 'json', source: 'json', notes: 'text' },
    ...{ entered_by: '>people', checked_by: '>people?', created_at: 'moment', published_at: 'moment?' },
    ...{ read_by: '>people?~', read_at: 'moment?~' },
    ...{ version: 'number', wear_limits: 'json', torques: 'json', format: 'number', wanted: 'json' },
    ...{ piece_charts: 'json', assembly: 'json', run_in: 'json~', second_source: 'json?~' },
    ...{ pictures: 'json~', origins: 'json~', limits_to_come: 'truth~', system: 'text?~' },
  },
  sheet_limits: {
    ...{ revision_id: '>sheet_revisions', role: 'text', min_tenths: 'number?', max_tenths: 'number?' },
    ...{ figure_tenths: 'number?~', also: 'json~' },
    ...{ as_written: 'text', allow_over_tenths: 'number?~', allow_over_why: 'text~' },
  },
  lash_points: {
    ...{ revision_id: '>sheet_revisions', key: 'text', ordinal: 'number', cylinder: 'text', role: 'text' },
  },
  engines: {
    ...{ id: 'id', sheet_id: '>sheets', name: 'text', serial: 'text', owner: 'text', duty: 'text' },
    ...{ usage_unit: 'text', usage: 'number', usage_at: 'moment', version: 'number', created_at: 'moment' },
    ...{ ran_before: 'number', meter_from: 'number', put_away_at: 'moment?', put_away_by: '>people?' },
    ...{ put_away_why: 'text?', place: 'text~', heat_cycles: 'number~' },
  },
  records_taken: {
    ...{ id: 'id', engine_id: '>engines', shop: 'text', written_at: 'moment', differences: 'json' },
    ...{ by: '>people', at: 'moment' },
  },
  engine_plans: {
    ...{ id: 'id', engine_id: '>engines', plan: 'json?', why: 'text', by: '>people', at: 'moment' },
  },
  usages: {
    ...{ id: 'id', engine_id: '>engines', usage: 'number', reason: 'text', read_at: 'moment', by: '>people' },
    ...{ running: 'number', new_meter: 'truth', heat_cycles: 'number?~', source: 'text~' },
    ...{ old_stopped_at: 'number?~', meter_from: 'number?~', struck_at: 'moment?~' },
    ...{ struck_by: '>people?~', struck_why: 'text~' },
  },
  builds: {
    ...{ id: 'id', engine_id: '>engines', revision_id: '>sheet_revisions', number: 'number', stage: 'text' },
    ...{ stage_since: 'moment', complaint: 'text', aim: 'text', version: 'number', opened_at: 'moment' },
    ...{ opened_by: '>people', closed_at: 'moment?', seq: 'number', carried_round: '>rounds?' },
    ...{ proves_again: 'text', abandoned_at: 'moment?', abandoned_by: '>people?', abandoned_why: 'text?' },
    ...{ own_aims: 'json?', aim_by: '>people?', allow_over: 'json', locked_stands: 'truth~' },
    ...{ single_rule: 'json?~', job: 'text~', last_checked_on: 'day?~', last_checked_usage: 'number?~' },
    ...{ last_checked_by: 'text?~', set_cold: 'json?~', set_cold_by: '>people?~', cold_hours: 'number~' },
  },
  rechecks: {
    ...{ id: 'id', build_id: '>builds', engine_id: '>engines', sequence: 'number', planned_usage: 'number' },
    ...{ due_usage: 'number?', due_date: 'day?', status: 'text', outcome: 'text?', done_at: 'moment?' },
    ...{ done_by: '>people?', after_outcome: 'text?', due_cycles: 'number?~', planned_cycles: 'number~' },
    ...{ season: 'text~', plan_usage: 'number?~', plan_date: 'day?~', by_forecast: 'truth~', held: 'truth~' },
    ...{ bench_day: 'day?~', expected_day: 'day?~', earliest_day: 'day?~', latest_day: 'day?~' },
    ...{ forecast: 'json?~', version: 'number~', planned_on: 'day?~', watched: 'truth~', sample: 'json~' },
    ...{ points: 'json?~', season_from: 'day?~', season_until: 'day?~', late_round: '>rounds?~' },
  },
  recheck_changes: {
    ...{
      id: 'id',
      recheck_id: '>rechecks',
      kind: 'text',
      day: 'day?',
      why: 'text',
      by: '>people',
      at: 'moment',
    },
  },
  point_checks: {
    ...{ recheck_id: '>rechecks', point: 'text', sheet_id: '>sheets', engine_id: '>engines', role: 'text' },
    ...{ since: 'number', lo: 'number', hi: 'number', from_lo: 'number', from_hi: 'number', verdict: 'text' },
    ...{ per_unit: 'number?', se: 'number?', said_mean: 'number?', said_sd: 'number?', at: 'moment' },
    newest: 'truth',
  },
  rounds: {
    ...{
      id: 'id',
      build_id: '>builds',
      revision_id: '>sheet_revisions',
      recheck_id: '>rechecks?',
      kind: 'text',
    },
    ...{
      number: 'number',
      opened_at: 'moment',
      opened_by: '>people',
      closed_at: 'moment?',
      usage: 'number?',
    },
    ...{ turn_school: 'text?', turn_at: 'number?', turn_done: 'json', turn_said_at: 'moment' },
  },
  stage_moves: {
    ...{ id: 'id', build_id: '>builds', from_stage: 'text', to_stage: 'text', by: '>people', at: 'moment' },
  },
  stage_ticks: {
    ...{ build_id: '>builds', stage: 'text', check_key: 'text', by: '>people', at: 'moment', done: 'truth' },
    earlier: 'json~',
    earlier_by: '>people*~',
  },
  stage_notes: { id: 'id', build_id: '>builds', stage: 'text', text: 'text', by: '>people', at: 'moment' },
  round_conditions: {
    ...{ id: 'id', round_id: '>rounds', engine_temp_c: 'number?', hours_since_run: 'number?' },
    ...{ condition: 'text?', by: '>people', at: 'moment' },
  },
  readings: {
    ...{ id: 'id', round_id: '>rounds', revision_id: '>sheet_revisions', point: 'text', reading: 'json' },
    ...{ as_typed: 'text', lo: 'number', hi: 'number?', min_tenths: 'number?', max_tenths: 'number?' },
    ...{ verdict: 'text', on_limit: 'truth', doubt_kept: 'truth', by: '>people', at: 'moment' },
    ...{ supersedes: '>readings?', superseded: 'truth', reason: 'text', crank_angle: 'number?' },
    ...{ off_base: 'truth', instrument_id: '>instruments?', taken_at: 'moment', blind: 'truth' },
    ...{ first_look: '>readings?', format: 'number', before_lock: 'truth' },
    ...{ allow_over_tenths: 'number~', narrow_blade: 'truth~', crosses: '>readings?~' },
  },
  settings: {
    ...{ id: 'id', build_id: '>builds', revision_id: '>sheet_revisions', point: 'text', kind: 'text' },
    ...{ degrees: 'number?', installed: 'number?', fitted: 'number?', mark: 'text', note: 'text' },
    ...{ by: '>people', at: 'moment', superseded: 'truth', piece_from: 'text', piece_to: 'text' },
    ...{
      piece_giver: 'text?',
      cause: 'text~',
      taken_back_at: 'moment?~',
      taken_back_by: '>people?~',
      taken_back_why: 'text~',
      came_at: 'moment~',
    },
  },
  sign_offs: {
    ...{
      build_id: '>builds',
      by: '>people',
      at: 'moment',
      usage: 'number',
      statement: 'text',
      accepted: 'json',
      seq: 'number?~',
    },
  },
  build_entries: {
    ...{ id: 'id', build_id: '>builds', room: 'text', lines: 'json', format: 'number', by: '>people' },
    ...{ at: 'moment', came_at: 'moment~' },
  },
  photographs: {
    ...{ id: 'id', build_id: '>builds', stage: 'text', about: 'text', note: 'text', width: 'number' },
    ...{ height: 'number', dropped_at: 'moment?', dropped_by: '>people?', by: '>people', at: 'moment' },
    shows: 'text',
  },
  know_how: {
    ...{ id: 'id', sheet_id: '>sheets', build_id: '>builds', stage: 'text', text: 'text', dropped: 'truth' },
    ...{ by: '>people', at: 'moment', about: 'text~', crank_angle: 'number?~' },
  },
  pattern_parts: {
    ...{ id: 'id', sheet_id: '>sheets', build_id: '>builds', lines: 'json', by: '>people', at: 'moment' },
  },
  piece_moves: {
    ...{ id: 'id', system: 'text', thickness: 'number', count: 'number', why: 'text', build_id: '>builds' },
    ...{ point: 'text?', note: 'text', by: '>people', at: 'moment', of_shop: 'text?' },
  },
} as const satisfies Readonly<
  Record<string, Readonly<Record<string, Column | `${Column}?` | `${Column}~` | `${Column}?~`>>>
>;
export type RecordTable = keyof typeof RECORD_TABLES;
/** What files written before it was kept do not have at all. */
const LATER: ReadonlySet<string> = new Set<RecordTable>([
  ...(['engine_plans', 'recheck_changes', 'point_checks', 'owners', 'instrument_checks'] as const),
  ...(['records_taken', 'know_how', 'pattern_parts', 'piece_moves'] as const),
]);

/** The most rows a record has in all: far more than any engine's life. */
export const MOST_ROWS = 200_000;
const json: z.ZodType = z.union([z.array(z.unknown()), z.record(z.string(), z.unknown())]);
const KINDS = {
  id,
  text: written.max(4000),
  number: z.number(),
  truth: z.boolean(),
  moment,
  day,
  json,
} as const;

function columnOf(kind: string, held: z.ZodType | undefined): z.ZodType {
  const bare = kind.replace(/[?~*]+$/, '');
  const one: z.ZodType = held ?? (bare.startsWith('>') ? id : KINDS[bare as keyof typeof KINDS]);
  const schema = kind.includes('*') ? z.array(one.nullable()).max(1000) : one;
  const maybe = /\?~?$/.test(kind) ? schema.nullable() : schema;
  return kind.endsWith('~') ? maybe.optional() : maybe;
}

const rowsOf = (table: string, columns: Readonly<Record<string, string>>) =>
  z
    .array(
      z.strictObject(
        Object.fromEntries(
          Object.entries(columns).map(([name, kind]) => [name, columnOf(kind, RECORD_JSON[table]?.[name])]),
        ),
      ),
    )
    .max(MOST_ROWS);

/** The version of the record's format that is written; see `docs/formats.md`. */
export const RECORD_FORMAT = 2;

/** The record of one engine as it stands in a file, with everything that was ever done on it. Lengths in tenths of a micrometre. */
export const recordFile = z.strictObject({
  format: z.literal('zero-lash-record', { error: 'this is no record of an engine' }),
  /** 1 knew no jobs: its builds are the whole of it, or set again what a recheck found */
  formatVersion: z.literal([1, RECORD_FORMAT], { error: 'this file was written by a newer Zero Lash' }),
  /** whose it was, and when it was written */
  shop: line(80),
  writtenAt: KINDS.moment,
  /** who did anything in it; their names are kept, and nothing else of them */
  people: z.array(z.strictObject({ id, name: line(60) })).max(1000),
  tables: z.strictObject(
    Object.fromEntries(
      Object.entries(RECORD_TABLES).map(([name, columns]) => [
        name,
        LATER.has(name) ? rowsOf(name, columns).default([]) : rowsOf(name, columns),
      ]),
    ) as Record<RecordTable, ReturnType<typeof rowsOf>>,
  ),
});
export type RecordFile = Omit<z.infer<typeof recordFile>, 'tables'> & {
  readonly tables: Readonly<Record<RecordTable, readonly RecordRow[]>>;
};
export type RecordRow = Readonly<Record<string, unknown>>;

/** The ZIP of a record, as base64. */
export const newRecord = z.object({ file: z.string().min(1) });

/** How something of another shop comes in: it is known here, it comes under its own name, or under another as its own is taken. */
const comesIn = z.object({ name: z.string(), as: z.string(), known: z.boolean() });
export type ComesIn = z.infer<typeof comesIn>;

/** What taking a record in does, or did. */
export const recordTaken = z.object({
  engineId: id,
  name: z.string(),
  /** whose it was, and when it was written */
  shop: z.string(),
  writtenAt: moment,
  builds: z.int(),
  readings: z.int(),
  /** it was here already, and nothing was written */
  already: z.boolean(),
  /** who did anything in it and is nobody of this shop */
  strangers: z.array(z.string()),
  owners: z.array(comesIn),
  instruments: z.array(comesIn),
  sheets: z.array(comesIn),
  differences: z.array(recordDifference),
});
export type RecordTaken = z.infer<typeof recordTaken>;
