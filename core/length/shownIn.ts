import { formatLength, type ShopUnit } from './formatLength.ts';
import { parseFigure, type FigureUnit } from './parseFigure.ts';
import { parseLength } from './parseLength.ts';
import { tenthsFromMm } from './tenths.ts';

/** Whether pressures, forces, torques and temperatures are said as metric manuals say them, or as inch manuals do. */
export type MeasureSystem = 'metric' | 'inch';

/** What figures are shown in, and what a bare one that is typed is in. */
export interface ShownIn {
  readonly length: ShopUnit;
  readonly system: MeasureSystem;
}

/** Everything as it is kept. */
export const METRIC: ShownIn = { length: 'mm', system: 'metric' };

/**
 * Says which system the figures of a sheet are shown in: its own, else that of the unit that is read in here.
 *
 * @example systemOf('thou', null) // 'inch'
 */
export const systemOf = (length: ShopUnit, own: MeasureSystem | null | undefined): MeasureSystem =>
  own ?? (length === 'mm' ? 'metric' : 'inch');

interface InchUnit {
  readonly unit: string;
  readonly by: number;
  readonly less?: number;
  /** a person reads no more of it */
  readonly decimals: number;
}

/** What inch manuals say instead. */
const INCH: Readonly<Record<Exclude<FigureUnit, 'mm' | '%'>, InchUnit>> = {
  bar: { unit: 'psi', by: 0.06894757, decimals: 0 },
  N: { unit: 'lbf', by: 4.448222, decimals: 1 },
  '°C': { unit: '°F', by: 5 / 9, less: 32, decimals: 0 },
};
const METRIC_DECIMALS = 1;

const inchUnit = (unit: FigureUnit, { system }: ShownIn): InchUnit | null =>
  system === 'metric' || unit === 'mm' || unit === '%' ? null : INCH[unit];

/**
 * Names the unit that figures of a kind are shown in.
 *
 * @param unit what they are kept in
 * @example unitShown('bar', { length: 'thou', system: 'inch' }) // 'psi'
 */
export const unitShown = (unit: FigureUnit, shown: ShownIn): string =>
  unit === 'mm' ? shown.length : (inchUnit(unit, shown)?.unit ?? unit);

/**
 * Writes a figure in the unit that it is shown in, without that unit.
 *
 * @param value in the unit it is kept in
 * @example figureShown(9.3079, 'bar', { length: 'thou', system: 'inch' }) // '135'
 */
export function figureShown(value: number, unit: FigureUnit, shown: ShownIn): string {
  if (unit === 'mm') return formatLength(tenthsFromMm(value), shown.length);
  const { by = 1, less = 0, decimals = METRIC_DECIMALS } = inchUnit(unit, shown) ?? {};
  const to = 10 ** decimals;
  return String(Math.round((value / by + less) * to) / to);
}

/**
 * Writes a figure with the unit that it is shown in.
 *
 * @param value in the unit it is kept in
 * @example figureWithUnit(9.3079, 'bar', { length: 'thou', system: 'inch' }) // '135 psi'
 */
export const figureWithUnit = (value: number, unit: FigureUnit, shown: ShownIn): string =>
  `${figureShown(value, unit, shown)} ${unitShown(unit, shown)}`;

/**
 * Reads a figure that was typed: a bare one is in the unit that is shown, any other says its own.
 *
 * @returns the figure in the unit it is kept in
 * @example figureTyped('135', 'bar', { length: 'thou', system: 'inch' }) // { value: 9.3079 }
 */
export function figureTyped(
  text: string,
  unit: FigureUnit,
  shown: ShownIn,
): { readonly value: number } | { readonly error: string } {
  if (unit === 'mm') {
    const length = parseLength(text, shown.length);
    return 'error' in length ? length : { value: length.mm };
  }
  const isBare = /^[\d.,\s+\-−]+$/.test(text.trim());
  return parseFigure(isBare ? `${text.trim()} ${unitShown(unit, shown)}` : text, unit);
}
