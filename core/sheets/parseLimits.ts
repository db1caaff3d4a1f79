import { mmFromTenths, parseLength, tenthsFromMm, type LengthUnit } from '../length/index.ts';

/** Limits as a source writes them, understood; lengths in mm. */
export interface ParsedLimits {
  readonly min: number;
  readonly max: number;
  readonly unit: LengthUnit;
  /** where the source gives a nominal figure with a tolerance */
  readonly nominal: number | null;
  readonly tolerance: number | null;
}

const SIGNED = /^(.+?)\s*(?:±|\+\/?[-−])\s*(.+)$/;
const BOTH = /^(.+?)\s*\+\s*([\d.,]+)\s*\/?\s*[-−–]\s*([\d.,]+)\s*(.*)$/;
const RANGE = /^(.+?)\s*(?:-|–|−|…|\.\.\.?|\bto\b)\s*(.+)$/i;
const UNIT = /[a-zµμ"]+$/i;

/**
 * Understands limits as a manual prints them: from–to, or a nominal figure with its tolerance.
 *
 * @param text such as `0.20–0.30`, `3 to 5 thou`, `0.15 ± 0.04 mm`, `0.10 +0.05/-0.02`; a unit at the end holds for both
 * @param defaultUnit the unit of bare figures
 * @returns limits in mm, whole in tenths of a micrometre; or a sentence
 * @example parseLimits('3 to 5 thou', 'mm') // { min: 0.0762, max: 0.127, unit: 'thou', nominal: null, tolerance: null }
 */
export function parseLimits(
  text: string,
  defaultUnit: LengthUnit,
): ParsedLimits | { readonly error: string } {
  const entry = text.trim();
  if (entry === '') return { error: 'Type the limits as the source writes them, such as 0.20–0.30 mm.' };
  const last = UNIT.exec(entry)?.[0] ?? '';
  const read = (part: string) => {
    const bare = part.trim();
    const parsed = parseLength(UNIT.test(bare) || last === '' ? bare : `${bare} ${last}`, defaultUnit);
    return 'error' in parsed ? null : { tenths: tenthsFromMm(parsed.mm), unit: parsed.unit };
  };
  const wrong = { error: `“${entry}” is not a pair of limits. Type 0.20–0.30, or 0.25 ± 0.05.` };

  const both = BOTH.exec(entry);
  const signed = both ? null : SIGNED.exec(entry);
  if (both || signed) {
    const [, nominalText = '', overText = '', underText = overText] = (both ?? signed)!;
    const [nominal, over, under] = [nominalText, overText, underText].map(read);
    if (!nominal || !over || !under) return wrong;
    const [min, max] = [nominal.tenths - under.tenths, nominal.tenths + over.tenths];
    if (min < 0)
      return {
        error: `The tolerance is wider than its nominal: the least would be ${mmFromTenths(min)} mm.${tenfold(nominal.tenths, over.tenths, last)}`,
      };
    return checked(min, max, nominal.unit, mmFromTenths(nominal.tenths), mmFromTenths(over.tenths));
  }
  const range = RANGE.exec(entry);
  if (!range) return wrong;
  const [least, most] = [range[1]!, range[2]!].map(read);
  if (!least || !most) return wrong;
  return checked(least.tenths, most.tenths, most.unit, null, null);
}

function checked(
  min: number,
  max: number,
  unit: LengthUnit,
  nominal: number | null,
  tolerance: number | null,
): ParsedLimits | { readonly error: string } {
  if (min >= max) return { error: 'The least clearance comes first, and the greatest is above it.' };
  return { min: mmFromTenths(min), max: mmFromTenths(max), unit, nominal, tolerance };
}

function tenfold(nominal: number, tolerance: number, unit: string): string {
  const tenth = tolerance / 10;
  if (unit !== '' && unit.toLowerCase() !== 'mm') return '';
  return tenth < nominal ? ` Did the source say ${mmFromTenths(nominal)} ± ${mmFromTenths(tenth)}?` : '';
}
