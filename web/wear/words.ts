import { figureShown, figureWithUnit, type ShownIn } from '@zero-lash/core/length';
import { LIMIT_KINDS, type FigureLine, type WearWarning, type WearUnit } from '@zero-lash/core/wear';

/** What stands in a field instead of a figure. */
const HOW_WORDS: Readonly<Partial<Record<FigureLine['how'], string>>> = {
  sound: 'sound',
  'gauge-goes': 'go',
  'gauge-wont': 'no-go',
};

/** Why a figure is asked about, in a sentence. */
export function warningInWords(warning: WearWarning, unit: WearUnit, shown: ShownIn): string {
  const written = figureShown(warning.value, unit, shown);
  if (warning.against === 'like')
    return `${written} is far from the ${figureWithUnit(warning.near, unit, shown)} that is usual here.`;
  const { title, unit: limited, form } = LIMIT_KINDS[warning.held.part];
  const figure = (value: number) => figureWithUnit(value, limited, shown);
  const comes = `With ${written}, ${title.toLowerCase()} comes to ${figure(warning.held.figure)}`;
  if (warning.against === 'possible')
    return `${comes}, which cannot be${warning.swapped ? ': are the two the other way round?' : '.'}`;
  const { nominal = null, limit = null, min = null, max = null } = warning.given ?? {};
  const said =
    form === 'band'
      ? `it lies between ${figure(min!)} and ${figure(max!)}`
      : nominal === null
        ? `its limit is ${figure(limit!)}`
        : `new it is ${figure(nominal)}, and its limit ${figure(limit!)}`;
  return `${comes}; ${said}${warning.swapped ? '. Are the two the other way round?' : '.'}`;
}

/** What stands in a field, as it would be typed. */
export function fieldText(
  line: Pick<FigureLine, 'how' | 'values'> | undefined,
  unit: WearUnit,
  shown: ShownIn,
): string {
  if (!line || line.how === 'taken-back') return '';
  return HOW_WORDS[line.how] ?? line.values.map((value) => figureShown(value, unit, shown)).join(' ');
}
