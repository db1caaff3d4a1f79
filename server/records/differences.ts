import { MOST_DIFFERENCES, type RecordDifference } from '@zero-lash/contract/recordColumns';
import {
  RECORD_TABLES,
  type RecordFile,
  type RecordRow,
  type RecordTable,
} from '@zero-lash/contract/records';
import { BOUNDS, impossible } from '@zero-lash/core/bounds';
import { mmFromTenths, tenthsFromMm } from '@zero-lash/core/length';
import { intervalOf, judge, saysOtherwise, type Judgement, type Reading } from '@zero-lash/core/measuring';
import type { UsageUnit } from '@zero-lash/contract/values';
import type { Pattern } from '@zero-lash/core/sheets';
import { mayMeasurePoint } from '@zero-lash/core/turning';

/** How far the clocks of two machines may be apart. */
const CLOCKS_APART_MS = 2 * 60_000;

/** A record's readings as they count here, and everywhere that the file says something else than what follows. */
export interface Differences {
  readonly readings: readonly RecordRow[];
  readonly found: readonly RecordDifference[];
}

/**
 * Judges every reading of a record again, by its row's own limits, and looks for what cannot be as it is said. What the file says
 * otherwise is named and kept as the file's word; a reading counts by what it is judged here.
 *
 * @example differencesIn(record).found // [{ path: 'tables.readings.3.verdict', file: 'in-spec', here: 'tight' }]
 */
export function differencesIn(record: RecordFile): Differences {
  const found: RecordDifference[] = [];
  const name = (path: string, file: unknown, here: string) =>
    found.push({ path: `tables.${path}`.slice(0, 120), file: String(file).slice(0, 200), here });
  const { tables } = record;
  const revisions = new Map(tables.sheet_revisions.map((row) => [row.id, row.pattern as Pattern]));
  const builds = new Map(tables.builds.map((row) => [row.id, row]));
  const rounds = new Map(tables.rounds.map((row) => [row.id, row]));
  const roles = new Map(tables.lash_points.map((row) => [`${row.revision_id} ${row.key}`, row.role]));

  const readings = tables.readings.map((row, index) => {
    const at = (column: string) => `readings.${index}.${column}`;
    const round = rounds.get(row.round_id)!;
    const build = builds.get(round.build_id)!;
    const point = `${row.revision_id as string} ${row.point as string}`;
    const { over, tooMuch } = allowedOver(build, roles.get(point), row);
    if (tooMuch) name(at('allow_over_tenths'), row.allow_over_tenths, 'more than its build allows');
    const known = judgements(row, over);
    const same = known.find(({ verdict, onLimit }) => verdict === row.verdict && onLimit === row.on_limit);
    const { verdict, onLimit } = same ?? known[0]!;
    if (verdict !== row.verdict) name(at('verdict'), row.verdict, verdict);
    else if (onLimit !== row.on_limit) name(at('on_limit'), row.on_limit, String(onLimit));
    const angle = row.crank_angle as number | null;
    const pattern = revisions.get(row.revision_id)!;
    const offBase = angle !== null && !mayMeasurePoint(pattern, row.point as string, angle);
    if (offBase !== row.off_base) name(at('off_base'), row.off_base, String(offBase));
    if (impossible('gap', mmFromTenths(row.lo as number))) name(at('lo'), row.as_typed, BOUNDS.gap.over);
    if (saysOtherwise(row.as_typed as string, row.reading as Reading))
      name(at('as_typed'), row.as_typed, 'another figure than its reading');
    if (Date.parse(row.taken_at as string) < Date.parse(round.opened_at as string))
      name(at('taken_at'), row.taken_at, 'before its round was begun');
    return { ...row, verdict, on_limit: onLimit, off_base: offBase };
  });

  for (const [table, index, column, value] of momentsIn(record))
    if (Date.parse(value) > Date.parse(record.writtenAt) + CLOCKS_APART_MS)
      name(`${table}.${index}.${column}`, value, 'later than the file was written');
  tables.builds.forEach((row, index) => {
    if (row.closed_at !== null && Date.parse(row.closed_at as string) < Date.parse(row.opened_at as string))
      name(`builds.${index}.closed_at`, row.closed_at, 'before it was opened');
  });
  const [engine] = tables.engines;
  tables.usages.forEach(({ usage }, index) => {
    const cannotBe = impossible(engine!.usage_unit as UsageUnit, usage as number);
    if (cannotBe) name(`usages.${index}.usage`, usage, cannotBe);
  });
  const last = [...tables.usages].sort(
    (a, b) => Date.parse(a.read_at as string) - Date.parse(b.read_at as string),
  );
  const read = last.at(-1);
  if (read && read.read_at === engine!.usage_at && read.usage !== engine!.usage)
    name('engines.0.usage', engine!.usage, `${String(read.usage)}, as it was read last`);
  const rest = found.length - MOST_DIFFERENCES;
  return {
    readings,
    found:
      rest > 0
        ? [
            ...found.slice(0, MOST_DIFFERENCES),
            { path: 'tables', file: `and ${rest} more like these`, here: '' },
          ]
        : found,
  };
}

/**
 * What is allowed over the greatest clearance at a reading: as its row says, and never more than its build allows. Rows of files
 * written before it was kept have what their build allows, or nothing.
 */
function allowedOver(
  build: RecordRow,
  role: unknown,
  row: RecordRow,
): { readonly over: readonly number[]; readonly tooMuch: boolean } {
  const ofBuild = (build.allow_over as { role: string; over: number }[]).find((each) => each.role === role);
  const allowed = tenthsFromMm(ofBuild?.over ?? 0);
  const said = row.allow_over_tenths as number | undefined;
  if (said === undefined) return { over: [allowed, 0], tooMuch: false };
  return { over: [Math.min(said, allowed)], tooMuch: said > allowed };
}

/** What a reading may have been judged to be by its own limits: as felt, and over a hollow that was known then. */
function judgements(row: RecordRow, over: readonly number[]): Judgement[] {
  const [min, max] = [row.min_tenths as number | null, row.max_tenths as number | null];
  const hollows = row.narrow_blade === true ? [false] : [false, true];
  return hollows.flatMap((hollow) =>
    over.map((allowOver) =>
      judge(
        intervalOf(row.reading as Reading, hollow),
        min === null || max === null ? null : { min, max, allowOver },
      ),
    ),
  );
}

/** Every moment that is said in a record, with where. */
function* momentsIn({ tables }: RecordFile): Generator<readonly [RecordTable, number, string, string]> {
  for (const table of Object.keys(RECORD_TABLES) as RecordTable[]) {
    const columns = Object.entries(RECORD_TABLES[table])
      .filter(([, kind]) => (kind as string).startsWith('moment'))
      .map(([column]) => column);
    for (const [index, row] of tables[table].entries())
      for (const column of columns)
        if (typeof row[column] === 'string') yield [table, index, column, row[column]];
  }
}
