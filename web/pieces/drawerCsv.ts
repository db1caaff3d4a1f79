import type { DrawerSystem } from '@zero-lash/contract/pieces';
import { formatLength, tenthsFromMm, TENTHS_PER, type ShopUnit } from '@zero-lash/core/length';
import { z } from 'zod';
import { numberTyped } from '@zero-lash/core/length';
import { readCsv } from '../app/readCsv.ts';
import { writeCsv } from '../app/writeCsv.ts';

/** Pieces of one size. */
export interface Pieces {
  readonly thickness: number;
  readonly count: number;
}

const PIECE = /^(\d+(?:[.,]\d+)?)\s*(mm|thou|in)?(?:\s*(?:[×x*]|\s)\s*(\d{1,3}))?$/i;
const MOST = 50;

/** How sizes are typed, by the unit they are stamped in. */
export const EXAMPLES = {
  mm: { one: '2.35 × 2', some: '2.35 × 2, 2.40', price: '3.00 = 9.50', prices: '3.00 = 9.50; 3.05 = 9.50' },
  thou: { one: '104 × 2', some: '104 × 2, 106', price: '118 = 9.50', prices: '118 = 9.50; 120 = 9.50' },
} as const satisfies Record<ShopUnit, unknown>;
const isMade = (mm: number, made: readonly number[]) =>
  made.length === 0 || made.some((size) => tenthsFromMm(size) === tenthsFromMm(mm));

/** What is wrong with a size; null where it is made. */
function sizeWarning(mm: number, made: readonly number[], unit: ShopUnit = 'mm'): string | null {
  const size = `${Number(formatLength(tenthsFromMm(mm), unit))} ${unit}`;
  if (mm < 0.1 || mm > MOST) return `${size} is no piece`;
  return isMade(mm, made) ? null : `${size} is not made`;
}

/** A size as it was typed, in mm: a bare one is in the unit the pieces are stamped in. */
function sizeTyped(digits: string, own: string | undefined, stamped: ShopUnit): number {
  const unit = (own?.toLowerCase() ?? stamped) as keyof typeof TENTHS_PER;
  return Math.round(numberTyped(digits) * TENTHS_PER[unit]) / TENTHS_PER.mm;
}

/**
 * Reads sizes with how many: `2.35 × 2, 2.40`.
 *
 * @param made sizes that are made, mm; any where none is known
 * @param stamped the unit they are stamped in, and a bare one is typed in
 * @example piecesTyped('2.35 x 2, 2.40', made) // { lines: [{ thickness: 2.35, count: 2 }, { thickness: 2.4, count: 1 }] }
 */
export function piecesTyped(
  text: string,
  made: readonly number[],
  stamped: ShopUnit = 'mm',
): { readonly lines: readonly Pieces[] } | { readonly error: string } {
  const counts = new Map<number, number>();
  // a comma with no space after it stands within a figure
  for (const piece of text
    .split(/;|\n|,(?=\s|$)/)
    .map((each) => each.trim())
    .filter(Boolean)) {
    const [, size, unit, many = '1'] = PIECE.exec(piece) ?? [];
    if (size === undefined)
      return { error: `“${piece}” is not a size with how many, such as ${EXAMPLES[stamped].one}.` };
    const mm = sizeTyped(size, unit, stamped);
    const warning = sizeWarning(mm, made, stamped);
    if (warning) return { error: `${warning}.` };
    counts.set(mm, (counts.get(mm) ?? 0) + numberTyped(many));
  }
  if (counts.size === 0) return { error: `Sizes with how many, such as ${EXAMPLES[stamped].one}.` };
  return { lines: [...counts].map(([thickness, count]) => ({ thickness, count })) };
}

/** A line of a kit's file. */
export interface KitLine {
  /** counted from 1, the heading with it */
  readonly line: number;
  readonly thickness: number | null;
  readonly count: number | null;
  readonly error: string | null;
}

const KIT: Readonly<Record<string, 'size' | 'count'>> = {
  ...{ size: 'size', thickness: 'size', 'thickness mm': 'size', 'size mm': 'size', mm: 'size' },
  ...{ count: 'count', pieces: 'count', many: 'count' },
};

/** Reads a kit from CSV: a thickness and a count a line, with a heading or without; what is not understood is named. */
export function readKitCsv(text: string, made: readonly number[]): readonly KitLine[] {
  const row = z.object({
    size: z.string().transform((typed, context) => {
      const mm = typed === '' ? NaN : numberTyped(typed);
      const warning = Number.isNaN(mm) ? `“${typed}” is no thickness` : sizeWarning(mm, made);
      if (warning === null) return mm;
      context.addIssue(warning);
      return z.NEVER;
    }),
    count: z
      .string()
      .regex(/^\d{1,3}$/, { error: ({ input }) => `“${String(input)}” is no count` })
      .transform(Number),
  });
  const bad = (line: number, error: string): KitLine => ({ line, thickness: null, count: null, error });
  const read = readCsv(text, { headings: KIT, needs: ['size', 'count'], bare: ['size', 'count'], row });
  if ('error' in read) return [bad(1, read.error)];
  return [
    ...read.rows.map(({ line, row: { size, count } }) => ({ line, thickness: size, count, error: null })),
    ...read.bad.map(({ line, why }) => bad(line, why)),
  ].toSorted((a, b) => a.line - b.line);
}

/** Writes what is to be ordered so that of each size as many are there as are wanted. */
export function writeOrderCsv({ title, sizes, reorder, price, sizePrices }: DrawerSystem): string {
  const costs = (mm: number) =>
    sizePrices.find(({ thickness }) => tenthsFromMm(thickness) === tenthsFromMm(mm))?.price ?? price;
  const short = sizes
    .map(({ thickness, count }) => ({ thickness, count: reorder - count }))
    .filter(({ count }) => count > 0);
  return writeCsv(
    ['pieces', 'thickness mm', 'count', 'price'],
    short.map(({ thickness, count }) => [title, thickness, count, (costs(thickness) * count).toFixed(2)]),
  );
}

const SIZE_PRICE = /^(\d+(?:[.,]\d+)?)\s*(mm|thou|in)?\s*[=:]\s*(\d+(?:[.,]\d{1,2})?)$/;

/**
 * Reads sizes that cost something else than the others: `3.00 = 9.50; 3.05 = 9.50`.
 *
 * @example readSizePrices('3.00 = 9.50', [3]) // { prices: [{ thickness: 3, price: 9.5 }] }
 */
export function readSizePrices(
  text: string,
  made: readonly number[],
  stamped: ShopUnit = 'mm',
):
  | { readonly prices: readonly { readonly thickness: number; readonly price: number }[] }
  | { readonly error: string } {
  const prices = new Map<number, number>();
  for (const piece of text
    .split(/;|\n|,(?=\s)/)
    .map((each) => each.trim())
    .filter(Boolean)) {
    const [, size, unit, price] = SIZE_PRICE.exec(piece) ?? [];
    if (size === undefined || price === undefined)
      return { error: `“${piece}” is no size with its price, such as ${EXAMPLES[stamped].price}.` };
    const mm = sizeTyped(size, unit, stamped);
    const warning = sizeWarning(mm, made, stamped);
    if (warning) return { error: `${warning}.` };
    prices.set(mm, numberTyped(price));
  }
  return { prices: [...prices].map(([thickness, price]) => ({ thickness, price })) };
}

/** Writes them as they are read. */
export const writeSizePrices = (prices: DrawerSystem['sizePrices'], stamped: ShopUnit = 'mm') =>
  prices
    .map(({ thickness, price }) => `${formatLength(tenthsFromMm(thickness), stamped)} = ${price.toFixed(2)}`)
    .join('; ');
