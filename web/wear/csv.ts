import { formatLength, tenthsFromMm } from '@zero-lash/core/length';
import type { Pattern } from '@zero-lash/core/sheets';
import {
  characteristicOf,
  characteristicsFor,
  doubtFigure,
  nearOf,
  parseFigures,
  placesOf,
  type FigureDoubt,
  type FigureLine,
  type WearSheet,
} from '@zero-lash/core/wear';
import Papa from 'papaparse';

/** The columns of a wear sheet's file, in their order. */
export const CSV_COLUMNS = ['what', 'place', 'figure', 'readings', 'of'] as const;

/** A file of readings understood: the lines that are taken, and those that are not, with why. */
export interface ReadCsv {
  readonly lines: readonly FigureLine[];
  readonly bad: readonly { readonly line: number; readonly text: string; readonly why: string }[];
}

/**
 * Understands a CSV of readings: a line a field, by what, place, figure and readings; several readings are parted by spaces.
 * Lengths are in mm unless they say otherwise. A line that does not fit is named and left out, and the rest is taken.
 *
 * @returns a sentence where the file has not the columns it needs
 */
export function readWearCsv(text: string, pattern: Pattern): ReadCsv | { readonly error: string } {
  const { data, meta } = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (name) => name.trim().toLowerCase(),
  });
  const missing = CSV_COLUMNS.slice(0, 4).filter((column) => !meta.fields?.includes(column));
  if (missing.length > 0)
    return {
      error: `The file needs the columns ${CSV_COLUMNS.join(', ')}; it has no ${missing.join(', no ')}.`,
    };
  const lines: FigureLine[] = [];
  const bad: { line: number; text: string; why: string }[] = [];
  data.forEach((row, index) => {
    const read = readRow(row, pattern);
    // the heading is the first line of the file
    if ('why' in read)
      bad.push({ line: index + 2, text: Object.values(row).flat().join(', '), why: read.why });
    else lines.push(read);
  });
  return { lines, bad };
}

function readRow(row: Record<string, string>, pattern: Pattern): FigureLine | { readonly why: string } {
  const [what = '', place = '', figure = '', readings = '', of = ''] = CSV_COLUMNS.map((column) =>
    String(row[column] ?? '').trim(),
  );
  const item = characteristicOf(what.toLowerCase());
  if (!item || !characteristicsFor(pattern).includes(item))
    return { why: `“${what}” is nothing that is measured on this engine` };
  const there = placesOf(pattern, item).find(({ key }) => key.toLowerCase() === place.toLowerCase());
  if (!there) return { why: `this engine has no ${place || 'such place'}` };
  const field = item.fields.find(({ key }) => key === figure.toLowerCase());
  if (!field)
    return { why: `${item.title} has ${item.fields.map(({ key }) => key).join(', ')}, and no “${figure}”` };
  if (readings === '') return { why: 'there is no reading in it' };
  const read = parseFigures(readings, field, 'mm');
  if ('error' in read) return { why: read.error };
  const set = of.toLowerCase() === 'fitted' ? 'fitted' : 'found';
  return {
    ...{ kind: 'figure', item: item.key, place: there.key, field: field.key, set },
    ...{ how: read.how, values: read.values, asTyped: readings.slice(0, 80), doubtKept: false },
  };
}

/** A line of a file whose figure looks like a slip. */
export interface DoubtedLine {
  readonly line: FigureLine;
  readonly doubt: FigureDoubt;
}

/**
 * Finds figures of a file that lie far from what is usual there: the nominal one, or the middle of the like ones in the file and
 * on the sheet.
 */
export function doubtsIn(
  lines: readonly FigureLine[],
  { standing, limits }: WearSheet,
): readonly DoubtedLine[] {
  const written = [...standing.values()].map(({ line }) => line).filter((line) => line.kind === 'figure');
  return lines.flatMap((line): DoubtedLine[] => {
    const item = characteristicOf(line.item)!;
    const field = item.fields.find(({ key }) => key === line.field)!;
    const [own] = item.limits;
    const nominal = item.fields.length === 1 ? limits.find(({ part }) => part === own)?.nominal : null;
    const like = [...written, ...lines].filter(
      (other) => other.item === line.item && other.field === line.field && other.place !== line.place,
    );
    const near = nominal ?? nearOf(like.flatMap(({ values }) => values));
    const doubt = line.values
      .map((value) => doubtFigure(value, near, field.unit))
      .find((each) => each !== null);
    return doubt ? [{ line, doubt }] : [];
  });
}

/** Writes every figure of a wear sheet as such a file, lengths in mm. */
export function writeWearCsv({ standing }: WearSheet): string {
  const rows: string[][] = [];
  for (const { line } of standing.values()) {
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
  return Papa.unparse({ fields: [...CSV_COLUMNS], data: rows });
}
