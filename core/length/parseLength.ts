import { TENTHS_PER, type LengthUnit } from './tenths.ts';

/** Limits of a clearance, in mm: what an entry is held against to find a slipped unit or decimal point. */
export interface LengthSpec {
  readonly min: number;
  readonly max: number;
}

/** What was typed, understood; `doubt` asks about a value far outside its limits and never blocks it. */
export interface ParsedLength {
  readonly mm: number;
  readonly unit: LengthUnit;
  /** what else may have been meant, in mm, likeliest first; there may be nothing */
  readonly doubt: { readonly suggestions: readonly number[] } | null;
}

/** The answer for anything that is not a length, a signed number included. */
export interface LengthError {
  readonly error: string;
}

const SUFFIXES: Readonly<Record<string, LengthUnit>> = {
  mm: 'mm',
  um: 'um',
  µm: 'um',
  μm: 'um',
  thou: 'thou',
  th: 'thou',
  mil: 'thou',
  in: 'in',
  inch: 'in',
  '"': 'in',
};

const ENTRY = /^(\d+(?:[.,]\d*)?|[.,]\d+)\s*([a-zµμ"]*)$/i;
const UNITS: readonly LengthUnit[] = ['mm', 'um', 'thou', 'in'];
const SLIPS: readonly number[] = [0.1, 10, 0.01, 100];
/** mm: what lies this near a boundary lies on it. */
const ON_BOUNDARY = 1e-9;

/**
 * Understands a length as a person types it: decimal point or comma, an optional unit.
 *
 * With limits, a value outside a quarter of the least and four times the greatest carries a doubt: what was typed stands
 * beside every figure it may have been meant for, and none of them is pushed.
 *
 * @param text what was typed, such as `0.15`, `,15 mm`, `6 thou`, `.006"`, `150um`
 * @param defaultUnit the unit of a bare number
 * @param spec limits in mm, where the place the length belongs to has them
 * @returns the length in mm (exact, not rounded to tenths), the unit it was read in and any doubt; or an error
 * @example parseLength('1.5', 'mm', { min: 0.11, max: 0.19 }) // { mm: 1.5, unit: 'mm', doubt: { suggestions: [0.15] } }
 * Rule: shop practice; a reading four times off its limits is far more often a slip than a gap. First the point one or two
 * places away, within the same four times; then the same digits in another unit, within one and a half times.
 */
export function parseLength(
  text: string,
  defaultUnit: LengthUnit,
  spec?: LengthSpec,
): ParsedLength | LengthError {
  const match = ENTRY.exec(text.trim());
  if (!match) return { error: 'not a length' };
  const unit = unitOf(match[2]!, defaultUnit);
  if (!unit) return { error: 'not a length' };
  const [whole = '', fraction = ''] = match[1]!.split(/[.,]/);
  const digits = Number(whole + fraction);
  if (!Number.isSafeInteger(digits)) return { error: 'not a length' };
  const inUnit = (chosen: LengthUnit) => (digits * TENTHS_PER[chosen]) / 10 ** (fraction.length + 4);
  const mm = inUnit(unit);
  return { mm, unit, doubt: spec ? doubtAbout(mm, unit, inUnit, spec) : null };
}

/**
 * Reads the unit behind a figure, in any case; undefined where it is none.
 *
 * @example unitOf('Thou', 'mm') // 'thou'
 */
export function unitOf<Unit extends LengthUnit | null>(
  suffix: string,
  defaultUnit: Unit,
): LengthUnit | Unit | undefined {
  const said = suffix.toLowerCase();
  if (said === '') return defaultUnit;
  return Object.hasOwn(SUFFIXES, said) ? SUFFIXES[said] : undefined;
}

function doubtAbout(
  mm: number,
  unit: LengthUnit,
  inUnit: (unit: LengthUnit) => number,
  { min, max }: LengthSpec,
): ParsedLength['doubt'] {
  const within = (value: number, factor: number) =>
    value >= min / factor - ON_BOUNDARY && value <= max * factor + ON_BOUNDARY;
  if (within(mm, 4)) return null;
  const middle = (min + max) / 2;
  const likeliest = (values: readonly number[], factor: number) =>
    values
      .filter((value) => within(value, factor))
      .sort((a, b) => Math.abs(a - middle) - Math.abs(b - middle));
  const slipped = SLIPS.map((factor) => Number((mm * factor).toPrecision(12)));
  const otherwise = UNITS.filter((other) => other !== unit).map(inUnit);
  const suggestions = [...likeliest(slipped, 4), ...likeliest(otherwise, 1.5)];
  return {
    suggestions: suggestions.filter(
      (value, index) => suggestions.findIndex((each) => Math.abs(each - value) < ON_BOUNDARY) === index,
    ),
  };
}
