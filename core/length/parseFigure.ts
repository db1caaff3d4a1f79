import { numberTyped } from './numberTyped.ts';
import { unitOf } from './parseLength.ts';
import { TENTHS_PER } from './tenths.ts';

/** What a figure of a sheet is kept in. */
export type FigureUnit = 'mm' | 'N' | '%' | 'bar' | '°C';

interface Factor {
  readonly by: number;
  /** what is taken off before */
  readonly less?: number;
}

interface Scale extends Factor {
  readonly named: RegExp;
}

/** Units that manuals print, by what they are kept in; those of length are every length's, see `unitOf`. */
const SCALES: Readonly<Record<Exclude<FigureUnit, 'mm'>, readonly Scale[]>> = {
  N: [
    { named: /^n$/, by: 1 },
    { named: /^(?:lbf?|lbs|pounds?)$/, by: 4.448222 },
    { named: /^(?:kgf?|kp)$/, by: 9.80665 },
  ],
  '%': [{ named: /^%$/, by: 1 }],
  bar: [
    { named: /^bar$/, by: 1 },
    { named: /^(?:psi|lbf?\/in2|lbf?\/in²)$/, by: 0.06894757 },
    { named: /^kpa$/, by: 0.01 },
    { named: /^mpa$/, by: 10 },
    { named: /^kgf?\/cm[2²]$/, by: 0.980665 },
  ],
  '°C': [
    { named: /^°?c$/, by: 1 },
    { named: /^°?f$/, by: 5 / 9, less: 32 },
  ],
};

const FIGURE = /^([-−+]?\s*[\d.,]+)\s*(.*)$/s;

/**
 * Reads a figure as a manual prints it, in whichever unit that is: inches and thou, psi and kPa, pounds, degrees Fahrenheit.
 *
 * @param text such as `8.5`, `0.340 in`, `135 psi`, `50 °F`
 * @param unit what it is kept in, and what a bare figure is in
 * @returns the figure in that unit, to four decimals
 * @example parseFigure('135 psi', 'bar') // { value: 9.3079 }
 */
export function parseFigure(
  text: string,
  unit: FigureUnit,
): { readonly value: number } | { readonly error: string } {
  const [, digits = '', name = ''] = FIGURE.exec(text.trim()) ?? [];
  const figure = numberTyped(digits);
  if (digits === '' || Number.isNaN(figure)) return { error: `“${text.trim()}” is not a number` };
  const scale: Factor | undefined =
    unit === 'mm'
      ? lengthScale(name)
      : SCALES[unit].find(({ named }) => named.test(name.trim().toLowerCase()));
  if (name.trim() !== '' && !scale)
    return { error: `“${name.trim()}” is no unit of this: it is kept in ${unit}` };
  const { by = 1, less = 0 } = scale ?? {};
  return { value: Math.round((figure - less) * by * 10_000) / 10_000 };
}

/** By how much a length in a unit is multiplied to be in mm; undefined where that is no unit of length. */
function lengthScale(name: string): Factor | undefined {
  const unit = unitOf(name.trim(), 'mm');
  return unit && { by: TENTHS_PER[unit] / TENTHS_PER.mm };
}
