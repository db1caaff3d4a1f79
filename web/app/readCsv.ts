import Papa from 'papaparse';
import type { z } from 'zod';

/** A line of a file that was not understood, with what is on it and why. */
export interface BadLine {
  /** as an editor counts them, the heading with it */
  readonly line: number;
  readonly text: string;
  readonly why: string;
}

/** What a file of lines holds: those that were understood, and those that were not. */
export interface CsvLines<Row> {
  /** the columns as the heading has them, in small letters; empty where there is none */
  readonly heads: readonly string[];
  readonly rows: readonly { readonly line: number; readonly text: string; readonly row: Row }[];
  readonly bad: readonly BadLine[];
}

interface Wants<Column extends string, Row> {
  /** every way a heading may be written, in small letters, and the column it means */
  readonly headings: Readonly<Record<string, Column>>;
  readonly needs: readonly Column[];
  /** the columns of a file with no heading, in their order; where it is left out there has to be one */
  readonly bare?: readonly Column[];
  /** what a line has to be, cell by cell; what is left out is empty */
  readonly row: z.ZodType<Row, Record<Column, string>>;
}

/**
 * Reads a CSV with commas, semicolons or tabs between its fields: a heading, and a line for each thing. Every line that does not
 * fit is named by the number an editor shows for it, whatever blank lines or quoted breaks stand before it.
 *
 * @returns a sentence where the file as a whole is not to be read
 * @example readCsv('size,count\n2.35,2', { headings, needs: ['size'], row }) // { heads, rows: [{ line: 2, … }], bad: [] }
 */
export function readCsv<Column extends string, Row>(
  text: string,
  { headings, needs, bare, row }: Wants<Column, Row>,
): CsvLines<Row> | { readonly error: string } {
  const { data, errors } = Papa.parse<string[]>(text.replace(/^\uFEFF/, '').trimEnd(), {
    skipEmptyLines: false,
  });
  const numbered = linesOf(data);
  const first = numbered.find(({ cells }) => !isBlank(cells));
  if (!first) return { error: 'There is nothing in the file.' };
  const heads = first.cells.map((cell) => cell.trim().toLowerCase());
  const named = heads.map((head) => headings[head] ?? null);
  const hasHeading = named.some((column) => column !== null);
  const columns = hasHeading || !bare ? named : bare;
  const missing = needs.filter((column) => !columns.includes(column));
  if (missing.length > 0)
    return {
      error: `The first line names the columns: it has no ${missing.join(', no ')}.`,
    };
  const twice = columns.find((column, at) => column !== null && columns.indexOf(column) !== at);
  if (twice) return { error: `The first line names the column ${twice} twice.` };
  const broken = new Set(errors.filter(({ type }) => type === 'Quotes').map(({ row: at }) => at));
  const rows: { line: number; text: string; row: Row }[] = [];
  const bad: BadLine[] = [];
  numbered.forEach(({ cells, line }, at) => {
    if (line < first.line || (hasHeading && line === first.line)) return;
    const said = { line, text: cells.join(', ').slice(0, 120) };
    const why = broken.has(at) ? 'a quote is opened and not closed, or stands within a field' : misfit(cells);
    if (why) return void bad.push({ ...said, why });
    const of = Object.fromEntries(
      Object.values(headings).map((column) => [column, plain(cells[columns.indexOf(column)] ?? '')]),
    ) as Record<Column, string>;
    const read = row.safeParse(of);
    if (read.success) rows.push({ ...said, row: read.data });
    else bad.push({ ...said, why: read.error.issues[0]!.message });
  });
  return { heads: hasHeading ? heads : [], rows, bad };

  function misfit(cells: readonly string[]): string | null {
    if (isBlank(cells)) return 'nothing is on it';
    const over = cells.slice(columns.length).some((cell) => cell.trim() !== '');
    return over
      ? `it has ${cells.length} fields where the first line has ${columns.length}: one with a comma in it goes in quotes`
      : null;
  }
}

/** A cell without what keeps a spreadsheet from taking it for a formula. */
const plain = (cell: string) => cell.trim().replace(/^'(?=[=@+\-\t\r\n＝＋－＠])/, '');

const isBlank = (cells: readonly string[]) => cells.every((cell) => cell.trim() === '');

/** Counts lines as an editor does: a break within quotes begins one too. */
function linesOf(
  data: readonly string[][],
): readonly { readonly cells: readonly string[]; readonly line: number }[] {
  let next = 1;
  return data.map((cells) => {
    const line = next;
    next += 1 + (cells.join('').match(/\r\n|\r|\n/g)?.length ?? 0);
    return { cells, line };
  });
}
