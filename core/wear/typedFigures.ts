import { impossible, MEASURED_IN } from '../bounds/index.ts';
import { figureTyped, mmFromTenths, TENTHS_PER, type ShownIn } from '../length/index.ts';
import type { WearField } from './characteristics.ts';
import type { FigureLine } from './wearLines.ts';

/** What was typed into one field of a wear sheet. */
export type TypedFigures =
  { readonly how: FigureLine['how']; readonly values: readonly number[] } | { readonly error: string };

const WORDS: Readonly<Record<string, FigureLine['how']>> = {
  ok: 'sound',
  sound: 'sound',
  good: 'sound',
  go: 'gauge-goes',
  goes: 'gauge-goes',
  nogo: 'gauge-wont',
  'no-go': 'gauge-wont',
  wont: 'gauge-wont',
};

/**
 * Understands what is typed into a field: one figure or several, separated by spaces or semicolons, with decimal points or
 * commas; or a word: sound (looked at and good), go or no-go (by a gauge). Nothing typed takes the figure back.
 *
 * @param shown what a bare figure is in; any other says its own unit: `135 psi`
 * @example parseFigures('6,98 6.97', { unit: 'mm', most: 3 }, METRIC) // { how: 'measured', values: [6.98, 6.97] }
 */
export function parseFigures(
  text: string,
  { unit, most }: Pick<WearField, 'unit' | 'most'>,
  shown: ShownIn,
): TypedFigures {
  const plain = text.trim().toLowerCase();
  if (plain === '') return { how: 'taken-back', values: [] };
  const how = WORDS[plain.replace('’', '').replace("'", '')];
  if (how) return { how, values: [] };
  // a unit belongs to the figure before it
  const tokens = plain
    .replace(/(\d)\s+(?=[a-z%°µ"])/g, '$1')
    .split(/[\s;]+/)
    .filter(Boolean);
  if (tokens.length > most)
    return { error: most === 1 ? 'one figure goes here' : `no more than ${most} readings go here` };
  const values: number[] = [];
  for (const token of tokens) {
    const read = figureTyped(token, unit, shown);
    if ('error' in read) return { error: `“${token}” is no figure: type one, or sound, go or no-go` };
    const { value } = read;
    const cannotBe = impossible(MEASURED_IN[unit], value);
    if (cannotBe) return { error: `${token}: ${cannotBe}` };
    values.push(value);
  }
  return { how: 'measured', values };
}

/** A figure that looks like a slip, and what was likely meant; null where nothing near fits. */
export interface SlipWarning {
  readonly value: number;
  readonly near: number;
  readonly suggestion: number | null;
}

/** From here on a figure is far more often a slip than a worn part. */
const FAR = 5;
const NEAR = 1.5;
const SLIPS: readonly number[] = [0.1, 10, 0.01, 100, 0.001, 1000];
const UNITS = [mmFromTenths(TENTHS_PER.in), mmFromTenths(TENTHS_PER.thou)];
/** What a figure is multiplied with where its point slipped, the likeliest first, and then where a length was read in another unit. */
export const factorsOf = (unit: WearField['unit']): readonly number[] =>
  unit === 'mm' ? [...SLIPS, ...UNITS.flatMap((factor) => [factor, 1 / factor])] : SLIPS;

/**
 * Warnings a figure that lies far from what its like ones are: the nominal one, or the middle of its neighbours. The
 * suggestion is the same digits with the point elsewhere, or read in the other unit.
 *
 * @param near what it should be near, in its own unit; nothing is warned where that is not known
 * @example slipWarning(69.8, 6.98) // { value: 69.8, near: 6.98, suggestion: 6.98 }
 */
export function slipWarning(value: number, near: number | null, unit: WearField['unit']): SlipWarning | null {
  if (near === null || near <= 0 || value <= 0) return null;
  const off = (figure: number) => Math.abs(Math.log(figure / near));
  if (off(value) < Math.log(FAR)) return null;
  const meant = factorsOf(unit)
    .map((factor) => Number((value * factor).toPrecision(12)))
    .filter((figure) => off(figure) < Math.log(NEAR))
    .sort((a, b) => off(a) - off(b));
  return { value, near, suggestion: meant[0] ?? null };
}

/**
 * Finds what a field's figures are near at other places of the same engine: their middle one.
 *
 * @returns null where fewer than two are known
 * @example nearOf([6.97, 6.98, 6.96]) // 6.97
 */
export function nearOf(figures: readonly number[]): number | null {
  if (figures.length < 2) return null;
  const sorted = figures.toSorted((a, b) => a - b);
  return sorted[Math.floor((sorted.length - 1) / 2)]!;
}
