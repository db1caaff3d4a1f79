import { numberTyped, mmFromTenths, tenthsFromMm } from '../length/index.ts';
import type { Role } from '../sheets/index.ts';

/** A chart as a maker prints it for one role: gaps measured down, pieces fitted now across; mm. */
export interface MakersChart {
  readonly role: Role;
  readonly installed: readonly number[];
  readonly rows: readonly {
    readonly from: number;
    readonly to: number;
    /** the piece to fit, `keep`, or nothing where the maker prints none */
    readonly pieces: readonly (number | 'keep' | null)[];
  }[];
}

/** How far from a printed size the piece that is in may measure and still be that one; tenths of a micrometre. */
const SAME_PIECE = 200;

/**
 * Looks up what a maker's chart says of a gap, measured with a piece in: by the middle of what is known, in the column of the
 * printed size that the piece is within 0.02 mm of. Where two rows meet the wider one holds.
 *
 * @returns undefined where the chart has no such row or column
 * @example chartSays(chart, { lo: 0.05, hi: 0.06 }, 2.4) // 2.3
 */
export function chartSays(
  { installed, rows }: Pick<MakersChart, 'installed' | 'rows'>,
  gap: { readonly lo: number; readonly hi: number },
  piece: number,
): number | 'keep' | null | undefined {
  const column = installed
    .map((size, index) => ({ index, apart: Math.abs(tenthsFromMm(size) - tenthsFromMm(piece)) }))
    .filter(({ apart }) => apart <= SAME_PIECE)
    .sort((a, b) => a.apart - b.apart)[0];
  const middle = (tenthsFromMm(gap.lo) + tenthsFromMm(gap.hi)) / 2;
  const row = rows.findLast(({ from, to }) => middle >= tenthsFromMm(from) && middle <= tenthsFromMm(to));
  return column && row ? row.pieces[column.index] : undefined;
}

/**
 * Reads a chart typed or pasted as lines: the pieces fitted now in the first, and then a line a range of gaps with what to fit
 * under each of them. Between figures stand semicolons, tabs or blanks; `keep` and `-` are what they say.
 *
 * @returns the chart, or what cannot be read, by its line
 * @example readChart('gap; 2.40; 2.45\n0.00-0.05; 2.30; 2.35').rows.length // 1
 */
export function readChart(text: string): Omit<MakersChart, 'role'> | { readonly error: string } {
  const lines = text
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean)
    .map((line) => line.split(/\s*[;\t]\s*|\s+/).filter((cell) => cell !== ''));
  const [head = [], ...rest] = lines;
  const figure = (cell: string) => (/^\d+([.,]\d+)?$/.test(cell) ? numberTyped(cell) : null);
  const installed = (figure(head[0] ?? '') === null ? head.slice(1) : head).map(figure);
  if (installed.length === 0 || installed.some((size) => size === null))
    return { error: 'Line 1: the pieces fitted now, such as gap; 2.40; 2.45.' };
  const rows: MakersChart['rows'][number][] = [];
  for (const [index, [range = '', ...cells]] of rest.entries()) {
    const [, from = '', to = ''] = /^(\d+(?:[.,]\d+)?)\s*[-–]\s*(\d+(?:[.,]\d+)?)$/.exec(range) ?? [];
    const ends = [figure(from), figure(to)];
    const bad = (said: string) => ({ error: `Line ${index + 2}: ${said}` });
    if (ends[0] === null || ends[1] === null || ends[0]! >= ends[1]!)
      return bad(`“${range}” is no range of gaps, such as 0.00-0.05.`);
    if (cells.length !== installed.length)
      return bad(`${cells.length} pieces under ${installed.length} that are fitted now.`);
    const pieces = cells.map((cell) =>
      /^keep$/i.test(cell) ? ('keep' as const) : /^[-–]$/.test(cell) ? null : (figure(cell) ?? undefined),
    );
    const odd = pieces.indexOf(undefined);
    if (odd >= 0) return bad(`“${cells[odd]}” is no piece: a size, keep, or -.`);
    rows.push({ from: ends[0]!, to: ends[1]!, pieces: pieces as (number | 'keep' | null)[] });
  }
  if (rows.length === 0) return { error: 'A line for each range of gaps is missing.' };
  return { installed: installed as number[], rows };
}

/**
 * Writes a chart the way it is read.
 *
 * @example writeChart(chart).split('\n')[0] // 'gap; 2.4; 2.45'
 */
export function writeChart({ installed, rows }: Pick<MakersChart, 'installed' | 'rows'>): string {
  const said = (mm: number) => String(mmFromTenths(tenthsFromMm(mm)));
  return [
    ['gap', ...installed.map(said)],
    ...rows.map(({ from, to, pieces }) => [
      `${said(from)}-${said(to)}`,
      ...pieces.map((piece) => (piece === null ? '-' : piece === 'keep' ? 'keep' : said(piece))),
    ]),
  ]
    .map((cells) => cells.join('; '))
    .join('\n');
}
