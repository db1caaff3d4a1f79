import { LIMIT_KINDS } from '@zero-lash/core/wear';
import type { FigureUnit, LengthUnit } from '@zero-lash/core/length';
import type { MeansValues, SheetValues } from './formValues.ts';
import { SAYS_UNIT } from './typedFigures.ts';

/** What a figure is in that is typed without a unit: as manuals print them that give lengths in mm, or in thou or inches. */
export interface BareUnits {
  readonly mm: LengthUnit;
  readonly torque: 'N·m' | 'lbf·ft';
  readonly bar: 'bar' | 'psi';
  readonly N: 'N' | 'lbf';
  readonly '°C': '°C' | '°F';
}

/**
 * Says what figures without a unit are in, in a form whose lengths are in a unit.
 *
 * @example bareUnits('thou').torque // 'lbf·ft'
 */
export const bareUnits = (length: LengthUnit): BareUnits =>
  length === 'mm'
    ? { mm: 'mm', torque: 'N·m', bar: 'bar', N: 'N', '°C': '°C' }
    : { mm: length, torque: 'lbf·ft', bar: 'psi', N: 'lbf', '°C': '°F' };

/** Every figure of a form that may be typed without its unit, besides the clearances: each through what is given. */
function throughFigures(
  values: SheetValues,
  each: (text: string, unit: FigureUnit | 'torque') => string,
): SheetValues {
  const means = (of: MeansValues): MeansValues => ({
    ...of,
    torqueNm: each(of.torqueNm, 'torque'),
    runsAt: each(of.runsAt, 'torque'),
    seatOffset: each(of.seatOffset, 'mm'),
  });
  return {
    ...values,
    tempFrom: each(values.tempFrom, '°C'),
    tempTo: each(values.tempTo, '°C'),
    lift: each(values.lift, 'mm'),
    means: means(values.means),
    others: values.others.map((other) => ({ ...other, means: means(other.means) })),
    wear: values.wear.map((row) => {
      const { unit } = LIMIT_KINDS[row.part];
      return { ...row, nominal: each(row.nominal, unit), limit: each(row.limit, unit) };
    }),
  };
}

/** A form whose figures all say their unit, where a bare one is not in what the sheet is kept in. */
export function withUnits(values: SheetValues): SheetValues {
  if (values.unit === 'mm') return values;
  const bare = bareUnits(values.unit);
  return throughFigures(values, (text, unit) =>
    text.trim() === '' || SAYS_UNIT.test(text) || unit === '%' ? text : `${text.trim()} ${bare[unit]}`,
  );
}

/** What bare figures are in as a sheet is opened again: the shop's unit, unless one stands there bare, which is in mm. */
export function unitToOpenIn(values: SheetValues, shop: LengthUnit): LengthUnit {
  const texts = [
    ...Object.values(values.limits).map((text) => text ?? ''),
    ...values.also.map(({ text }) => text),
    ...Object.values(values.allowances).map((allowance) => allowance?.over ?? ''),
  ];
  throughFigures(values, (text) => {
    texts.push(text);
    return text;
  });
  return texts.some((text) => /[1-9]/.test(text) && !SAYS_UNIT.test(text)) ? 'mm' : shop;
}
