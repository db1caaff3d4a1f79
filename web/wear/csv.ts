import { formatLength, tenthsFromMm, METRIC } from '@zero-lash/core/length';
import type { Pattern } from '@zero-lash/core/sheets';
import {
  characteristicOf,
  characteristicsFor,
  figureWarning,
  parseFigures,
  placesOf,
  wearKey,
  withLines,
  type FigureLine,
  type WearWarning,
  type WearSheet,
} from '@zero-lash/core/wear';
import { z } from 'zod';
import { readCsv, type BadLine } from '../app/readCsv.ts';
import { writeCsv } from '../app/writeCsv.ts';

/** The columns of a wear sheet's file, in their order. */
export const CSV_COLUMNS = ['what', 'place', 'figure', 'readings', 'of'] as const;

/** A file of readings understood: the lines that are taken, and those that are not, with why. */
export interface ReadCsv {
  readonly lines: readonly FigureLine[];
  readonly bad: readonly BadLine[];
}

const HEADINGS = Object.fromEntries(CSV_COLUMNS.map((column) => [column, column])) as Record<
  (typeof CSV_COLUMNS)[number],
  (typeof CSV_COLUMNS)[number]
>;

/**
 * Understands a CSV of readings: a line a field, by what, place, figure and readings; several readings are separated by spaces.
 * Lengths are in mm unless they say otherwise. A line that does not fit is named and left out, and the rest is taken.
 *
 * @returns a sentence where the file has not the columns it needs
 */
export function readWearCsv(text: string, pattern: Pattern): ReadCsv | { readonly error: string } {
  const read = readCsv(text, { headings: HEADINGS, needs: CSV_COLUMNS.slice(0, 4), row: rowOf(pattern) });
  if ('error' in read)
    return { error: `${read.error} The file needs the columns ${CSV_COLUMNS.slice(0, 4).join(', ')}.` };
  const first = new Map<string, number>();
  const lines: FigureLine[] = [];
  const bad = [...read.bad];
  for (const { line, text: said, row } of read.rows) {
    const before = first.get(wearKey(row));
    if (before !== undefined) bad.push({ line, text: said, why: `line ${before} has this field already` });
    else {
      first.set(wearKey(row), line);
      lines.push(row);
    }
  }
  return { lines, bad: bad.toSorted((a, b) => a.line - b.line) };
}

const rowOf = (pattern: Pattern) =>
  z
    .object({
      ...{ what: z.string().toLowerCase(), place: z.string(), figure: z.string().toLowerCase() },
      ...{ readings: z.string().min(1, 'there is no reading in it') },
      of: z
        .string()
        .toLowerCase()
        .pipe(z.enum(['', 'found', 'fitted'], 'a figure is of what was found, or fitted')),
    })
    .transform(({ what, place, figure, readings, of }, context): FigureLine => {
      const complain = (why: string) => {
        context.addIssue(why);
        return z.NEVER;
      };
      const item = characteristicOf(what);
      if (!item || !characteristicsFor(pattern).includes(item))
        return complain(`“${what}” is nothing that is measured on this engine`);
      const there = placesOf(pattern, item).find(({ key }) => key.toLowerCase() === place.toLowerCase());
      if (!there) return complain(`this engine has no ${place || 'such place'}`);
      const field = item.fields.find(({ key }) => key === figure);
      if (!field)
        return complain(
          `${item.title} has ${item.fields.map(({ key }) => key).join(', ')}, and no “${figure}”`,
        );
      const read = parseFigures(readings, field, METRIC);
      if ('error' in read) return complain(read.error);
      return {
        ...{ kind: 'figure', item: item.key, place: there.key, field: field.key },
        ...{ how: read.how, values: read.values, asTyped: readings.slice(0, 80), doubtKept: false },
        set: of === 'fitted' ? 'fitted' : 'found',
      };
    });

/** A line of a file whose figure looks like a slip. */
export interface LineWithWarning {
  readonly line: FigureLine;
  readonly warning: WearWarning;
}

/** Finds figures of a file that look like slips, held against the sheet as it would be with the whole file in it. */
export function warningsIn(
  lines: readonly FigureLine[],
  sheet: WearSheet,
  pattern: Pattern,
): readonly LineWithWarning[] {
  const with_ = withLines(sheet, lines);
  return lines.flatMap((line): LineWithWarning[] => {
    const item = characteristicOf(line.item)!;
    const field = item.fields.find(({ key }) => key === line.field)!;
    const place = placesOf(pattern, item).find(({ key }) => key === line.place)!;
    const warning = figureWarning(with_, pattern, { set: line.set, item, field, place }, line.values);
    return warning ? [{ line, warning }] : [];
  });
}

/** Writes every figure of a wear sheet as such a file, lengths in mm. */
export function writeWearCsv({ current }: WearSheet): string {
  const rows: string[][] = [];
  for (const { line } of current.values()) {
    if (line.kind !== 'figure' || line.how === 'taken-back') continue;
    const unit = characteristicOf(line.item)?.fields.find(({ key }) => key === line.field)?.unit;
    const readings =
      line.how === 'measured'
        ? line.values
            .map((value) => (unit === 'mm' ? formatLength(tenthsFromMm(value), 'mm') : String(value)))
            .join(' ')
        : { sound: 'sound', 'gauge-goes': 'go', 'gauge-wont': 'no-go' }[line.how];
    rows.push([line.item, line.place, line.field, readings, line.set]);
  }
  return writeCsv(CSV_COLUMNS, rows);
}
