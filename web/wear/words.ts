import { formatLength, tenthsFromMm, type ShopUnit } from '@zero-lash/core/length';
import type { FigureLine, WearUnit } from '@zero-lash/core/wear';

/** What stands in a field instead of a figure. */
const HOW_WORDS: Readonly<Partial<Record<FigureLine['how'], string>>> = {
  sound: 'sound',
  'gauge-goes': 'go',
  'gauge-wont': 'no-go',
};

/** Writes a figure of a wear sheet in the unit it is read in; without the unit itself. */
export function wearFigure(value: number, unit: WearUnit, shop: ShopUnit): string {
  return unit === 'mm' ? formatLength(tenthsFromMm(value), shop) : String(Math.round(value * 10) / 10);
}

/** The unit a figure is read in here. */
export const unitHere = (unit: WearUnit, shop: ShopUnit): string => (unit === 'mm' ? shop : unit);

/** What stands in a field, as it would be typed. */
export function fieldText(
  line: Pick<FigureLine, 'how' | 'values'> | undefined,
  unit: WearUnit,
  shop: ShopUnit,
): string {
  if (!line || line.how === 'taken-back') return '';
  return HOW_WORDS[line.how] ?? line.values.map((value) => wearFigure(value, unit, shop)).join(' ');
}
